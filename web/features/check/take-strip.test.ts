import { beforeEach, expect, it } from 'vitest'
import { mounted } from '../../mounting'
import { freshStores } from '../../testing'
import TakeStrip from './TakeStrip.vue'

const IDLE = {
  phase: 'off',
  level: undefined,
  progress: 0,
  fault: '',
  said: '',
  sounding: undefined,
  toleranceCents: 15,
  isIdle: false,
  isResting: false,
  companion: 'nothing',
  tempo: 60,
} as const

beforeEach(() => {
  localStorage.clear()
  freshStores()
})

async function dropped(props: object) {
  const { wrapper } = await mounted(TakeStrip, { ...IDLE, ...props })
  const recording = new File(['RIFF'], 'lantern-round.wav', { type: 'audio/wav' })
  const drop = new Event('drop', { bubbles: true, cancelable: true })
  Object.assign(drop, { dataTransfer: { files: [recording] } })
  wrapper.element.dispatchEvent(drop)
  return { heard: wrapper.emitted('hear'), recording, isTaken: drop.defaultPrevented }
}

it('hears a recording that is dropped on it, and never lets the browser leave the page for it', async () => {
  const { heard, recording, isTaken } = await dropped({})
  expect(heard).toEqual([[recording]])
  expect(isTaken).toBe(true)
})

it.each([{ phase: 'playing' }, { phase: 'hearing' }, { isIdle: true }])(
  'leaves a dropped recording alone while something goes on (%o)',
  async (props) => {
    const { heard, isTaken } = await dropped(props)
    expect(heard).toBeUndefined()
    expect(isTaken).toBe(true)
  },
)

it('cautions where a tone or a click goes to the ears', async () => {
  expect((await mounted(TakeStrip, IDLE)).text()).not.toContain('Keep it quiet.')
  expect((await mounted(TakeStrip, { ...IDLE, companion: 'drone' })).text()).toContain('Keep it quiet.')
})

it('says what sounds, how loud, and how to end it', async () => {
  const level = { levelDb: -20, isClipped: false, noiseDb: -70 }
  const sounding = { finger: 2, cents: -18.4 }
  const { text, named } = await mounted(TakeStrip, { ...IDLE, phase: 'playing', level, sounding })
  expect(text()).toMatch(/Playing ?2 −18 cents/)
  expect(named('Loudness').getAttribute('aria-valuetext')).toBe('good')
  expect(text()).toContain('Done')
  const room = await mounted(TakeStrip, { ...IDLE, phase: 'waiting', level: { ...level, levelDb: -72 } })
  expect(room.text()).toContain('The room is quiet.')
})

it('asks nobody to play while a pain is marked, by no button and no key', async () => {
  const { text, press, wrapper } = await mounted(TakeStrip, { ...IDLE, isResting: true })
  expect(text()).toContain('Nothing is played while it hurts.')
  expect(text()).not.toMatch(/Listen|A recording/)
  for (const key of ['l', 'f', 'p']) await press(key)
  expect([wrapper.emitted('listen'), wrapper.emitted('play')]).toEqual([undefined, undefined])
})
