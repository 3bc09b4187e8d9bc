import { mount } from '@vue/test-utils'
import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { defineComponent, h, nextTick, onBeforeUnmount, ref, type Component } from 'vue'
import KeyHint from './KeyHint.vue'
import QuickDialog from './QuickDialog.vue'
import { holdKeys, releaseKeys } from './keysOnTheWay'
import { refusedKey, useDialog, useShortcuts } from './useShortcuts'

/** A page with a key for laying, one for a room, and these fields. */
const ran: string[] = []
const page = (...fields: Component[]) =>
  mount(
    defineComponent({
      setup() {
        useShortcuts(
          'A page',
          ['y', 'c', '1', '?', 'Enter'].map((key) => ({ key, does: key, run: () => void ran.push(key) })),
        )
        return () =>
          h('div', [...['1', 'c', 'Enter'].map((of) => h(KeyHint, { of })), ...fields.map((f) => h(f))])
      },
    }),
    { attachTo: document.body },
  )
const field = (attributes: Record<string, string>) => () => h('input', attributes)
const length = field({ 'data-takes': 'length', value: '328' })

function focus(selector = 'input', selected: 'all' | 'end' = 'end') {
  const input = document.querySelector<HTMLInputElement>(selector)!
  input.focus()
  input.setSelectionRange(selected === 'all' ? 0 : input.value.length, input.value.length)
  return input
}
/** Whether the key is left to the field. */
const press = (key: string, on: Element = document.activeElement ?? document.body) =>
  on.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))

let shown: ReturnType<typeof page>
beforeEach(() => void (ran.length = 0))
afterEach(() => shown.unmount())

it('acts on a key that the field in focus cannot take, and leaves it those that it can', () => {
  shown = page(length)
  focus()
  expect([press('y'), press('?'), press('Enter')]).toEqual([false, false, false])
  // 328 may still become 3281, 328 cm and 328 mm.
  expect([press('1'), press('c'), press('m'), press('½')]).toEqual([true, true, true, true])
  expect(ran).toEqual(['y', '?', 'Enter'])
  // Where all of it is selected the letter would stand alone, which is no length.
  focus('input', 'all')
  press('c')
  expect(ran).toEqual(['y', '?', 'Enter', 'c'])
})

it('refuses in sight what neither the field nor the page can use, until the next key', () => {
  shown = page(length)
  const input = focus()
  expect(press('k')).toBe(false)
  expect(refusedKey.value).toMatchObject({ key: 'k', takes: 'a number, and mm, cm or in after it' })
  expect(refusedKey.value?.field).toBe(input)
  press('1')
  expect(refusedKey.value).toBeUndefined()
})

it('leaves free text, forms and choices their keys', () => {
  shown = page(
    field({ id: 'name' }),
    () => h('form', [h('input', { id: 'in-form', 'data-takes': 'number' })]),
    field({ id: 'choice', readonly: '' }),
  )
  focus('#name')
  expect([press('y'), press('1'), press('?')]).toEqual([true, true, true])
  focus('#in-form')
  expect(press('Enter')).toBe(true)
  focus('#choice')
  expect(press('Enter')).toBe(true)
  press('y')
  expect(ran).toEqual(['y'])
})

it('leaves a field by Escape, and names Escape before a key as long as the field would take it', async () => {
  shown = page(length)
  const hints = async () => {
    await new Promise((resolve) => queueMicrotask(() => resolve(undefined)))
    await nextTick()
    return [...document.querySelectorAll('kbd')].map((k) => k.textContent)
  }
  expect(await hints()).toEqual(['1', 'C', '⏎'])
  focus()
  expect(await hints()).toEqual(['Esc 1', 'Esc C', '⏎'])
  press('Escape')
  expect(document.activeElement).toBe(document.body)
  expect(await hints()).toEqual(['1', 'C', '⏎'])
  press('1')
  expect(ran).toEqual(['1'])
})

it('keeps the keys pressed while a page is on its way, and gives them to it as if pressed there', async () => {
  shown = page(length)
  const input = document.querySelector('input')!
  holdKeys()
  for (const key of ['y', '4', '.', '6', 'Backspace', '5', 'k']) press(key)
  expect(ran).toEqual([])
  input.focus()
  input.setSelectionRange(3, 3)
  await releaseKeys()
  expect([ran, input.value]).toEqual([['y'], '3284.5'])
  press('1', document.body)
  expect(ran).toEqual(['y', '1'])
})

it.each([
  [false, 1],
  [true, 0],
])(
  'submits the form at an Enter that was kept, as the browser does: not while its button is shut (%s)',
  async (disabled, times) => {
    let submitted = 0
    const onSubmit = (event: Event) => (event.preventDefault(), submitted++)
    const Asked = defineComponent({
      setup: () => () => h('form', { onSubmit }, [h('input'), h('button', { disabled })]),
    })
    shown = mount(Asked, { attachTo: document.body })
    holdKeys()
    for (const key of ['M', 'a', 'Enter']) press(key)
    const input = focus()
    await releaseKeys()
    expect([input.value, submitted]).toEqual(['Ma', times])
  },
)

it('goes on keeping where a kept key leads to yet another page, some moments later', async () => {
  const Leads: Component = {
    setup() {
      const leadOn = () => (ran.push('n'), queueMicrotask(holdKeys))
      useShortcuts('Leads on', [{ key: 'n', does: 'Next', run: leadOn }])
      return () => null
    },
  }
  shown = page(Leads)
  holdKeys()
  for (const key of ['n', 'y', '1']) press(key)
  await releaseKeys()
  expect(ran).toEqual(['n'])
  // what is pressed now waits behind what was kept
  press('?', document.body)
  await releaseKeys()
  expect(ran).toEqual(['n', 'y', '1', '?'])
})

it('keeps what asks for the palette on the way to a page, and what is typed behind it until the palette has the focus', async () => {
  const Palette: Component = {
    setup() {
      const open = ref(false)
      const arrive = useDialog(open)
      const ask = (event: KeyboardEvent) => void (event.ctrlKey && event.key === 'k' && (open.value = true))
      document.addEventListener('keydown', ask)
      onBeforeUnmount(() => document.removeEventListener('keydown', ask))
      return () => [h('input', { id: 'in-palette' }), h('button', { onClick: arrive })]
    },
  }
  shown = page(Palette)
  holdKeys()
  document.body.dispatchEvent(
    new KeyboardEvent('keydown', { key: 'k', ctrlKey: true, bubbles: true, cancelable: true }),
  )
  for (const key of ['M', 'a']) press(key)
  // The page is there; the palette is asked for, and still to come.
  await releaseKeys()
  press('x')
  const input = focus('#in-palette')
  shown.find('button').element.click()
  await releaseKeys('nothing')
  await expect.poll(() => input.value).toBe('Max')
})

it('closes a dialog at an Escape that was kept behind the letters that it was given', async () => {
  const open = ref(true)
  const Asked = () =>
    h(
      QuickDialog,
      {
        label: 'New instrument',
        modelValue: open.value,
        'onUpdate:modelValue': (to: boolean) => void (open.value = to),
      },
      { default: () => h('input', { id: 'in-dialog' }) },
    )
  shown = page(Asked)
  await nextTick()
  holdKeys()
  for (const key of ['M', 'a']) press(key)
  const input = focus('#in-dialog')
  const given = releaseKeys()
  // Before the last of them is done with.
  press('Escape')
  await given
  expect([input.value, open.value]).toEqual(['Ma', false])
})

it('leaves a dialog open that was asked for again before the browser told that it had closed', async () => {
  const open = ref(true)
  const Asked = () =>
    h(QuickDialog, {
      label: 'Find',
      modelValue: open.value,
      'onUpdate:modelValue': (to: boolean) => void (open.value = to),
    })
  shown = page(Asked)
  const dialog = document.querySelector('dialog')!
  await nextTick()
  // Its own word comes late, as in a browser that is busy.
  const late: Event[] = []
  const listen = (event: Event) => (late.push(event), event.stopImmediatePropagation())
  window.addEventListener('close', listen, { capture: true })
  open.value = false
  await nextTick()
  open.value = true
  await nextTick()
  window.removeEventListener('close', listen, { capture: true })
  expect(late).toHaveLength(1)
  dialog.dispatchEvent(new Event('close'))
  expect([open.value, dialog.open]).toEqual([true, true])
  dialog.close()
  await expect.poll(() => open.value).toBe(false)
})

it('leaves the page the Escape that follows the one that closes a dialog, before the browser told that it had closed', async () => {
  const open = ref(true)
  const left = vi.fn()
  shown = page({
    setup() {
      useShortcuts('the page', [{ key: 'Escape', does: 'Leave', run: left }])
      return () =>
        h(QuickDialog, {
          label: 'Keys',
          modelValue: open.value,
          'onUpdate:modelValue': (to: boolean) => void (open.value = to),
        })
    },
  })
  await nextTick()
  document.querySelector('dialog')!.dispatchEvent(new Event('cancel'))
  await nextTick()
  press('Escape')
  expect(left).toHaveBeenCalledOnce()
})
