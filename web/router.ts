import { createRouter, createWebHistory, isNavigationFailure, NavigationFailureType } from 'vue-router'
import { ROOMS } from './rooms'
import { useSession } from './stores/session'
import { holdKeys, releaseKeys } from './ui/keysOnTheWay'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    {
      path: '/sign-in',
      name: 'sign-in',
      component: () => import('./pages/SignInPage.vue'),
      meta: { open: true },
    },
    { path: '/', name: 'today', component: () => import('./pages/TodayPage.vue') },
    { path: '/students', name: 'students', component: () => import('./pages/StudentsPage.vue') },
    {
      path: '/students/:studentId',
      name: 'student',
      component: () => import('./pages/StudentPage.vue'),
      props: true,
      meta: { room: 'students' },
    },
    { path: '/tapes', name: 'tapes', component: () => import('./pages/TapesPage.vue') },
    {
      path: '/tapes/lay',
      name: 'lay',
      component: () => import('./pages/LayPage.vue'),
      meta: { room: 'tapes' },
    },
    {
      path: '/tapes/compare',
      name: 'compare',
      component: () => import('./pages/ComparePage.vue'),
      meta: { room: 'tapes' },
    },
    { path: '/instruments', name: 'instruments', component: () => import('./pages/InstrumentsPage.vue') },
    {
      path: '/instruments/import',
      name: 'import',
      component: () => import('./pages/ImportPage.vue'),
      meta: { room: 'instruments' },
    },
    {
      path: '/instruments/:instrumentId',
      name: 'instrument',
      component: () => import('./pages/InstrumentPage.vue'),
      props: true,
      meta: { room: 'instruments' },
    },
    { path: '/patterns', name: 'patterns', component: () => import('./pages/PatternsPage.vue') },
    {
      path: '/patterns/frame',
      name: 'frame',
      component: () => import('./pages/FramePage.vue'),
      meta: { room: 'patterns' },
    },
    {
      path: '/patterns/scales',
      name: 'scales',
      component: () => import('./pages/ScalesPage.vue'),
      meta: { room: 'patterns' },
    },
    {
      path: '/patterns/shifts',
      name: 'shifts',
      component: () => import('./pages/ShiftsPage.vue'),
      meta: { room: 'patterns' },
    },
    {
      path: '/students/:studentId/hand',
      name: 'hand',
      component: () => import('./pages/HandPage.vue'),
      props: true,
      meta: { room: 'students' },
    },
    {
      path: '/students/:studentId/history',
      name: 'history',
      component: () => import('./pages/HistoryPage.vue'),
      props: true,
      meta: { room: 'students' },
    },
    {
      path: '/students/:studentId/plan',
      name: 'plan',
      component: () => import('./pages/PlanPage.vue'),
      props: true,
      meta: { room: 'students' },
    },
    {
      path: '/practice',
      name: 'practice',
      component: () => import('./pages/ClassPage.vue'),
      meta: { room: 'students' },
    },
    { path: '/setup', name: 'setup', component: () => import('./pages/SetupPage.vue') },
    {
      path: '/setup/drawings',
      name: 'drawings',
      component: () => import('./pages/DrawingsPage.vue'),
      meta: { room: 'studio' },
    },
    {
      path: '/students/:studentId/setup',
      name: 'setup-record',
      component: () => import('./pages/SetupRecordPage.vue'),
      props: true,
      meta: { room: 'students' },
    },
    { path: '/studio', name: 'studio', component: () => import('./pages/StudioPage.vue') },
    {
      path: '/studio/people',
      name: 'people',
      component: () => import('./pages/PeoplePage.vue'),
      meta: { room: 'studio' },
    },
    { path: '/server', name: 'server', component: () => import('./pages/ServerPage.vue') },
    { path: '/account', name: 'account', component: () => import('./pages/AccountPage.vue') },
    {
      path: '/check/eye',
      name: 'eye',
      component: () => import('./pages/EyePage.vue'),
      meta: { room: 'check' },
    },
    {
      path: '/check/findings',
      name: 'findings',
      component: () => import('./pages/FindingsPage.vue'),
      meta: { room: 'check' },
    },
    { path: '/check', name: 'check', component: () => import('./pages/CheckPage.vue') },
    { path: '/:rest(.*)*', name: 'nowhere', component: () => import('./pages/NowherePage.vue') },
  ],
})

router.beforeEach(async (to) => {
  if (to.meta['open']) return true
  const session = await useSession()
    .restore()
    .catch(() => undefined)
  return session ? true : { name: 'sign-in', query: { next: to.fullPath } }
})

router.beforeEach((to, from) => {
  if (to.name !== from.name) holdKeys()
})
// A page sets its focus while it is mounted, in the tick after this one. Where a key led on before it was there, the keys wait
// for the page that is still to come.
router.afterEach((_to, _from, failure) => {
  if (!isNavigationFailure(failure, NavigationFailureType.cancelled)) setTimeout(() => void releaseKeys())
})
router.onError(() => void releaseKeys())

router.afterEach((to) => {
  const room = ROOMS.find((r) => r.name === to.name || r.name === to.meta['room'])
  const title = room?.title ?? (to.name === 'account' ? 'Account' : undefined)
  document.title = title ? `${title} · Jadefell` : 'Jadefell'
})
