import { nextTick } from 'vue'
import { beforeEach, describe, expect, it } from 'vitest'
import { bareSetup, useBench, BY_HAND, type BenchSetup } from '../../stores/bench'
import { mounted } from '../../mounting'
import { fakeServer, freshStores } from '../../testing'
import AcrossPanel from './AcrossPanel.vue'
import BenchSettings from './BenchSettings.vue'
import CuttingPanel from './CuttingPanel.vue'
import LayBeginning from './LayBeginning.vue'
import LayStepCard from './LayStepCard.vue'
import LengthField from './LengthField.vue'
import MarkChoice from './MarkChoice.vue'
import PlaceTable from './PlaceTable.vue'
import RingPanel from './RingPanel.vue'
import SystemsPanel from './SystemsPanel.vue'
import { useTapes } from './useTapes'

beforeEach(() => {
  sessionStorage.clear()
  freshStores()
  fakeServer({ status: 200, body: [] })
})

function lay(changes: Partial<BenchSetup> = {}) {
  const store = useBench()
  store.setup = { ...bareSetup(changes.familyId ?? 'violin'), lengthText: '328', ...changes }
  return store
}

describe('the places', () => {
  it('show what pressing and rings move only where they are reckoned with', async () => {
    const store = lay()
    const { text } = await mounted(PlaceTable)
    expect(text()).toContain('36.4')
    expect(text()).not.toContain('by pressing')
    expect(text()).not.toContain('by ring')
    store.setup.pressingMode = 'typical'
    await store.addFind('D4', 'E4', 37)
    await nextTick()
    expect(text()).toContain('by pressing')
    expect(text()).toContain('± (95 %)')
  })

  it('name the worst string where one straight tape leaves something over', async () => {
    const store = lay()
    const { text } = await mounted(PlaceTable)
    expect(text()).not.toContain('worst string')
    store.setup.systemId = 'just:G'
    await nextTick()
    expect(text()).toMatch(/worst string.*[+−]11 cents/) // half a comma
  })
})

describe('a length', () => {
  const say = async (lengthText: string, changes: Partial<BenchSetup> = {}) => {
    lay({ ...changes, lengthText })
    return (await mounted(LengthField)).text()
  }

  it('is explained for each way of measuring wrong', async () => {
    expect(await say('328')).toContain('Fits a violin 4/4')
    expect(await say('356')).toContain('is the length of the body')
    expect(await say('12.9')).toContain('Did you mean inches')
    expect(await say('383')).toContain('reaches to the tailpiece')
    expect(await say('308')).toContain('That is the string of a ¾')
    expect(await say('338')).toContain('has the bridge wandered or does it lean?')
    expect(await say('60')).toContain('No violin has such a string')
    expect(await say('164', { method: 'harmonic' })).toContain('Twice that: 328.0 mm')
  })

  it('string by string tells which side of the bridge stands too far, and what cannot be together', async () => {
    const strings = { method: 'strings' as const }
    expect(await say('', { ...strings, stringTexts: ['331', '329', '328', '326'] })).toMatch(
      /The bridge stands askew: 4\.\d mm further from the nut on the G side/,
    )
    expect(await say('', { ...strings, stringTexts: ['328', '328', '334', '328'] })).toContain(
      'A is 6.0 mm longer than the others',
    )
    expect(await say('', { ...strings, stringTexts: ['300', '600', '300', '300'] })).toContain(
      '300.0 and 600.0 mm cannot be on one instrument',
    )
  })

  it('of every string off alike is said of all of them, and blames none', async () => {
    const said = await say('', { method: 'strings', stringTexts: ['339', '339.5', '339', '338.5'] })
    expect(said).toContain('All strings: 11.0 mm long for a 4/4')
    expect(said).not.toMatch(/[GDAE]: /)
  })

  it('typed whole where the octave was asked for is taken as what it is by one press', async () => {
    const store = lay({ method: 'harmonic', lengthText: '328' })
    const { named, text } = await mounted(LengthField)
    expect(text()).toContain('328.0 mm is the whole string already')
    ;(named('It is the whole string') as HTMLElement).click()
    await nextTick()
    expect([store.setup.method, store.stringing.lengthMm]).toEqual(['bridge', 328])
  })

  it('starts a measurement string by string from what is known', async () => {
    const store = lay()
    const { named } = await mounted(LengthField)
    ;(named('Each string') as HTMLElement).click()
    await nextTick()
    expect(store.setup).toMatchObject({ method: 'strings', stringTexts: ['328', '328', '328', '328'] })
  })
})

it('marks by hand are chosen and left again, low and high forms by name', async () => {
  lay({ schoolId: BY_HAND })
  const { named } = await mounted(MarkChoice)
  for (const name of ['low 2', 'high 3', 'octave']) (named(name) as HTMLElement).click()
  ;(named('octave') as HTMLElement).click()
  await nextTick()
  expect(useTapes().marks.map((mark) => mark.id)).toEqual(['2.3', '3.6'])
  expect(named('low 2').getAttribute('aria-pressed')).toBe('true')
})

it('strings of different materials are chosen one by one, and move their own places', async () => {
  const store = lay({ pressingMode: 'measured', nutHeightMm: 0.5, endHeightMm: 5, material: 'synthetic' })
  const settings = await mounted(BenchSettings)
  const before = useTapes().marks[0]!.strings.map((s) => s.placeMm)
  const choose = async (group: string, label: string) => {
    const option = [...settings.named(group).querySelectorAll('label')].find((l) =>
      l.textContent?.includes(label),
    )
    option!.querySelector('input')!.click()
    await nextTick()
  }
  await choose('String material', 'By string')
  expect(store.setup.materials).toEqual(['synthetic', 'synthetic', 'synthetic', 'synthetic'])
  await choose('Material of the E5 string', 'Steel')
  const after = useTapes().marks[0]!.strings.map((s) => s.placeMm)
  expect(after.slice(0, 3)).toEqual(before.slice(0, 3))
  expect(after[3]).toBeLessThan(before[3]! - 0.1)
})

describe('string by string', () => {
  it('warns beyond 10 cents and says why: the system, or the bridge', async () => {
    lay({ systemId: 'just:G' })
    expect((await mounted(AcrossPanel)).text()).toContain('The tuning system asks different strings')
    lay({ method: 'strings', stringTexts: ['334', '330', '326', '322'], schoolId: 'every' })
    const { text } = await mounted(AcrossPanel)
    expect(text()).toContain('The bridge stands askew: have it set straight')
    expect(text()).toMatch(/\d\.\d° ?G side nearer the bridge, worst 0 cents/)
  })

  it('lays a tape as askew as the bridge stands, where it was found askew, and square elsewhere', async () => {
    const stepText = async () => {
      const step = {
        foundMm: 36,
        plannedMm: 36,
        isFound: false,
        isSquared: false,
        isWrapped: false,
        isSkipped: false,
      }
      const props = { mark: useTapes().marks[0]!, step, waitsFor: [], take: () => true }
      return (await mounted(LayStepCard, props)).text()
    }
    lay({ method: 'strings', stringTexts: ['334', '330', '326', '322'] })
    // A whole tone is a ninth of each string: 334 / 9 and 322 / 9.
    expect(await stepText()).toContain('laid as askew as the bridge: 37.1 mm under G, 35.8 mm under E')
    lay({ method: 'strings', stringTexts: ['328.2', '328.1', '328', '328'] })
    expect(await stepText()).toContain('squared to the strings')
  })

  it('is quiet where every string is served', async () => {
    lay()
    const { text } = await mounted(AcrossPanel)
    expect(text()).not.toContain('No straight tape')
    expect(text()).toContain('no better')
  })
})

it('systems show what each choice moves, and one press chooses', async () => {
  const store = lay({ schoolId: BY_HAND, markIds: ['2.4'] })
  const { named, text } = await mounted(SystemsPanel)
  // 81:64 against 400 cents: −7.82 (published)
  expect(text()).toMatch(/Equal.*−8 cents/)
  ;(named('Equal') as HTMLElement).click()
  await nextTick()
  expect(store.setup.systemId).toBe('equal')
})

it('a thick tape is warned of where it is chosen, and where it is laid', async () => {
  const store = lay()
  const { text } = await mounted(BenchSettings)
  expect(text()).not.toContain('too thick')
  store.setup.tapeThicknessMm = 0.5
  await nextTick()
  expect(text()).toContain('3 mm wide, too thick')
  expect(text()).toContain('A tape 0.5 mm thick can act as a fret')
  const beginning = await mounted(LayBeginning, { marks: useTapes().marks })
  expect(beginning.text()).toContain('A tape 0.5 mm thick can act as a fret')
})

describe('cutting', () => {
  it('tells how long a piece, and takes a girth that was measured', async () => {
    const store = lay()
    const { text } = await mounted(CuttingPanel)
    expect(text()).toContain('typical ones, from memory')
    store.setup.girthText = '72'
    await nextTick()
    expect(text()).toContain('girth as measured')
    expect(text()).toContain('80 mm') // 72 and 8 to overlap
  })

  it('warns of a tape that would act as a fret', async () => {
    const store = lay()
    const { text } = await mounted(CuttingPanel)
    expect(text()).not.toContain('fret')
    store.setup.tapeThicknessMm = 0.5
    await nextTick()
    expect(text()).toContain('A tape 0.5 mm thick can act as a fret')
    expect(text()).toContain('up to 9 cents sharp at the 1st finger')
  })
})

describe('rings', () => {
  it('name string, note and open string for every mark, and the marks that nothing answers', async () => {
    lay({ schoolId: 'every' })
    const { text, named } = await mounted(RingPanel)
    expect(text()).toContain('E4 on D')
    expect(text()).toContain('open E, an octave above')
    expect(text()).toContain('D4 on G open D, in unison, strong')
    expect(text()).toContain('Nothing rings at the 2nd finger')
    expect(named('Reference tone E4')).toBeTruthy()
  })

  it('take a place on Enter, question one that belongs to another string, and say where it belongs', async () => {
    const store = lay({ schoolId: 'every' })
    const { named, press, text } = await mounted(RingPanel)
    const field = named('G4 on the D string rings at, mm') as HTMLInputElement
    field.value = '36.5' // that is the first finger's place, not the third's
    field.dispatchEvent(new Event('input'))
    await press('Enter', field)
    await nextTick()
    expect(store.finds).toHaveLength(1)
    expect(text()).toContain('Is that right? It disagrees with everything else')
    expect(text()).toMatch(/36\.5 mm is where the 1st finger lies/)
    // every number has a name: no bare Greek letter, no bare c
    expect(text()).toMatch(/\d\.\d times the usual scatter/)
    expect(text()).not.toMatch(/σ|\d c\b|where the ruler begins/)
    ;(named('Rung again: it is so') as HTMLElement).click()
    await nextTick()
    expect(text()).not.toContain('Is that right?')
  })

  it('refuse an empty place, and one beyond the string', async () => {
    const store = lay()
    const { named, press, text } = await mounted(RingPanel)
    const field = named('E4 on the D string rings at, mm') as HTMLInputElement
    for (const wrong of ['', '400', '-3']) {
      field.value = wrong
      field.dispatchEvent(new Event('input'))
      await press('Enter', field)
      expect(text()).toContain(`“${wrong}” is no place on this string`)
      expect(field.getAttribute('aria-invalid')).toBe('true')
      expect(document.getElementById(field.getAttribute('aria-describedby')!)?.textContent).toContain(wrong)
    }
    expect(store.finds).toHaveLength(0)
  })
})
