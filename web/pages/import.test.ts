import { flushPromises } from '@vue/test-utils'
import { beforeEach, expect, it, vi } from 'vitest'
import { parseInstruments } from '../files/parse-instruments'
import { mounted } from '../mounting'
import { AN_INSTRUMENT, fakeServer, freshStores, lists, until } from '../testing'
import ImportPage from './ImportPage.vue'

vi.mock('../files/instruments.worker?worker', () => ({
  default: class {
    onmessage: ((event: { data: unknown }) => void) | undefined
    postMessage(bytes: ArrayBuffer) {
      queueMicrotask(() => this.onmessage?.({ data: parseInstruments(bytes) }))
    }
    terminate() {}
  },
}))

const LABELS = lists({ instruments: [AN_INSTRUMENT] })

beforeEach(() => {
  freshStores()
})

async function given(content: string | Uint8Array<ArrayBuffer>) {
  const page = await mounted(ImportPage)
  const input = document.querySelector<HTMLInputElement>('#table-file')!
  Object.defineProperty(input, 'files', { value: [new File([content], 'a.csv')], configurable: true })
  input.dispatchEvent(new Event('change'))
  await flushPromises()
  await until(() => expect(page.text()).not.toContain('Reading…'))
  await flushPromises()
  return page
}

it('shows every faulty row with its reason and saves only the good ones, when told to', async () => {
  const sent = fakeServer(
    LABELS,
    {
      status: 200,
      body: { count: 1, ids: ['one'], notLent: [{ label: 'no. 8', name: 'Orla Venn', why: 'has_one' }] },
    },
    LABELS,
  )
  const { text, named } = await given(
    [
      'label,family,size,length',
      'no. 8,violin,1/2,300',
      'no. 7,violin,1/2,',
      ',viola,15,',
      'x,cello,5/4,6',
    ].join('\n'),
  )
  expect(text()).toContain('1 ready')
  expect(text()).toContain('3 rows to mend')
  expect(text()).toContain('an instrument of this name is in the cupboard already')
  expect(text()).toContain('no number or name')
  expect(text()).toContain('“5/4” is not one of the sizes 4/4, 7/8')
  // a half violin has about 270 to 295 mm: it comes in as written, and is shown with its reason beside the others
  expect(text()).toContain('1 of them to look at')
  expect(text()).toMatch(/2 ?no\. 8 ?300: .*yes, as written/)
  expect(text()).toMatch(/3 ?no\. 7 ?an instrument of this name.*not before it is mended/)
  expect(sent.map((s) => s.method)).toEqual(['GET'])
  ;(named('Save 1 instrument') as HTMLElement).click()
  await until(() => expect(text()).toContain('1 instrument saved.'))
  expect(text()).toContain('no. 8 is with nobody: Orla Venn has an instrument already.')
  expect(sent[1]).toMatchObject({ body: { rows: [{ label: 'no. 8', length: '300' }] } })
})

it('says which sizes it read out of days that a spreadsheet had made of them', async () => {
  fakeServer(LABELS)
  const { text } = await given('label,family,size\nno. 9,violin,01/02/26\n')
  expect(text()).toContain('The spreadsheet made the day 01/02/26 of a size: read as ½.')
})

it('names a file that cannot be read, and takes the mended one after it', async () => {
  fakeServer({ status: 200, body: [] })
  const { text } = await given(new Uint8Array([0x6c, 0xe4, 0x0a]))
  expect(text()).toContain('Save it from the spreadsheet as “CSV UTF-8”')
  const again = await given('label,family,size\nno. 9,violin,1/2\n')
  expect(again.text()).toContain('1 ready')
})

it('says which columns are not read, and reads an office’s own headings with their unit', async () => {
  fakeServer(LABELS)
  const { text } = await given('No.;Type;Size;String length (in);Bought\nno. 81;violin;4/4;12.9;2019\n')
  expect(text()).toContain('1 ready')
  expect(text()).toContain('Not read: “Bought”.')
})
