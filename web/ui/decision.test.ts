import { nextTick } from 'vue'
import { expect, it } from 'vitest'
import { aCheck, freshStores } from '../testing'
import { mounted } from '../mounting'
import DecisionForm from './DecisionForm.vue'

it('other words for a verdict do not take up again what is mended; another thing to work on does', async () => {
  freshStores()
  const { verdict } = aCheck('c1', '2026-11-14T09:00:00Z', [
    [1, 0],
    [2, 1],
    [3, -1],
    [4, -30],
  ])
  const mended = {
    says: 'accepted',
    reason: null,
    sentence: null,
    workOn: 'Elbow',
    isMended: true,
    by: '',
    at: '',
  }
  for (const [workOn, isMended] of [
    ['Elbow', true],
    ['Frame', false],
  ] as const) {
    const { wrapper, press } = await mounted(DecisionForm, { verdict, decision: mended })
    await press('w')
    await nextTick()
    await wrapper.get('textarea').setValue('In other words.')
    await wrapper.get('input').setValue(workOn)
    await wrapper.get('form').trigger('submit')
    expect(wrapper.emitted('decide')?.[0]?.[0]).toMatchObject({
      sentence: 'In other words.',
      workOn,
      isMended,
    })
    wrapper.unmount()
  }
})
