import { mount, type VueWrapper } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { getActivePinia } from 'pinia'
import type { Component } from 'vue'
import { createMemoryHistory, createRouter, type RouteLocationRaw, type Router } from 'vue-router'
import { freshStores, onClose } from './testing'

/** Rooms by their names, empty: what matters is where a component leads to. */
const ROUTES = [
  'today',
  'tapes',
  'lay',
  'compare',
  'students',
  'student',
  'hand',
  'patterns',
  'scales',
  'shifts',
  'frame',
  'instrument',
  'instruments',
  'import',
  'setup',
  'setup-record',
  'drawings',
  'check',
  'eye',
  'findings',
  'history',
  'plan',
  'practice',
  'studio',
  'people',
  'server',
  'account',
  'sign-in',
]

export interface Mounted {
  readonly wrapper: VueWrapper
  readonly router: Router
  /** What is read aloud or seen, spaces as one. */
  text(): string
  /** The field, button or region of this accessible name. */
  named(name: string | RegExp): Element
  press(key: string, on?: Element): Promise<void>
}

let standing: VueWrapper | undefined

/** What is only wiped off the page goes on hearing its keys: the next test’s would be answered twice. */
function takeDown(): void {
  if (standing && !standing.vm.$.isUnmounted) standing.unmount()
  standing = undefined
}

/** A component on a page of its own, `at` an address, with stores, rooms and the library's components; removed by the next one. */
export async function mounted(
  component: Component,
  props: Record<string, unknown> = {},
  at: RouteLocationRaw = { name: 'today' },
): Promise<Mounted> {
  takeDown()
  if (!getActivePinia()) freshStores()
  document.body.innerHTML = ''
  const router = createRouter({
    history: createMemoryHistory(),
    routes: ROUTES.map((name) => ({
      name,
      path: `/${name}/:studentId?/:instrumentId?`,
      component: { render: () => null },
    })),
  })
  await router.push(at)
  const wrapper = mount(component, {
    props,
    attachTo: document.body,
    global: { plugins: [getActivePinia()!, router, ElementPlus] },
  }) as VueWrapper
  standing = wrapper
  onClose(takeDown)
  return {
    wrapper,
    router,
    text: () => (document.body.textContent ?? '').replace(/\s+/g, ' '),
    named(name) {
      const found = [...document.body.querySelectorAll('*')].find((el) =>
        nameOf(el).some((n) => matches(n, name)),
      )
      if (!found) throw new Error(`nothing is named ${String(name)}`)
      return found
    },
    async press(key, on = document.body) {
      on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
      await wrapper.vm.$nextTick()
    },
  }
}

function nameOf(element: Element): string[] {
  const label = element.getAttribute('aria-label')
  const labelled = element.id ? document.querySelector(`label[for="${element.id}"]`)?.textContent : undefined
  const own = element.matches('button, a, [role="tab"]') ? element.textContent : undefined
  return [label, labelled, own].flatMap((n) => (n ? [n.replace(/\s+/g, ' ').trim()] : []))
}

function matches(name: string, wanted: string | RegExp): boolean {
  return typeof wanted === 'string' ? name === wanted : wanted.test(name)
}
