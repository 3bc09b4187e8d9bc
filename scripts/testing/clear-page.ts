import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterAll } from 'vitest'

// The files of a worker have one page: what one leaves mounted would hear the keys of the next, and what it leaves written be read there.
disableAutoUnmount()
enableAutoUnmount(afterAll)

afterAll(() => {
  document.body.replaceChildren()
  localStorage.clear()
  sessionStorage.clear()
})
