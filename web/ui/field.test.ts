import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { expect, it } from 'vitest'
import { h, nextTick } from 'vue'
import ChoiceSelect from './ChoiceSelect.vue'
import FieldRow from './FieldRow.vue'
import PlainSelect from './PlainSelect.vue'

const OPTIONS = [{ value: 'violin', label: 'Violin' }]
const row = (slot: (given: { id: string }) => unknown, fault?: string) =>
  mount(FieldRow, {
    props: { label: 'Family', fault },
    slots: { default: slot as never },
    attachTo: document.body,
    global: { plugins: [ElementPlus] },
  })
const labelled = () => document.querySelector<HTMLLabelElement>('label')?.control

it.each([
  ['a field', ({ id }: { id: string }) => h('input', { id })],
  ['a drop-down', () => h(ChoiceSelect, { label: 'Family', options: OPTIONS, modelValue: 'violin' })],
  [
    'the browser’s own drop-down',
    () => h(PlainSelect, { label: 'Family', options: OPTIONS, modelValue: 'violin' }),
  ],
])('%s is named by its label and described by its fault', async (_, slot) => {
  const shown = row(slot, 'No family has this.')
  await nextTick()
  await nextTick()
  const control = labelled()
  expect(control?.matches('input, select')).toBe(true)
  expect(document.getElementById(control!.getAttribute('aria-describedby')!)?.textContent).toBe(
    'No family has this.',
  )
  expect(control!.getAttribute('aria-invalid')).toBe('true')
  await shown.setProps({ fault: undefined })
  await nextTick()
  expect([control!.getAttribute('aria-describedby'), control!.getAttribute('aria-invalid')]).toEqual([
    null,
    'false',
  ])
  shown.unmount()
})

it('a group of several is headed by words that name none of them', async () => {
  const shown = row(() => [h('input', { 'aria-label': 'nut' }), h('input', { 'aria-label': 'end' })])
  await nextTick()
  await nextTick()
  expect(document.querySelector('label')).toBeNull()
  expect(document.body.textContent).toContain('Family')
  shown.unmount()
})
