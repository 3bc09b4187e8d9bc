import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { ApiProblem } from './api/client'
import { router } from './router'
import { useNotices } from './stores/notices'
import { useSession } from './stores/session'
import './styles/fonts.css'
import './styles/tokens.css'
import './styles/base.css'
import './styles/element.css'

const app = createApp(App).use(createPinia()).use(router)

/** What no page dealt with itself: a session that ended leads to signing in, everything else is said. */
function onUncaught(error: unknown): void {
  if (error instanceof ApiProblem && error.code === 'not_signed_in') {
    useSession().lose()
    const next = router.currentRoute.value.fullPath
    void router.push({ name: 'sign-in', query: { next } })
    return
  }
  useNotices().fault(error)
  if (!(error instanceof ApiProblem)) console.error(error)
}
app.config.errorHandler = onUncaught
window.addEventListener('unhandledrejection', (event) => {
  event.preventDefault()
  onUncaught(event.reason)
})

app.mount('#app')

// Once the page is there: the worker brings the rest of it beside. Without HTTPS, on another machine, a browser has none.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  window.addEventListener(
    'load',
    () => void navigator.serviceWorker.register('/sw.js').catch(() => undefined),
  )
