import { expect, it } from 'vitest'
import { seededSource } from '#core'
import { fuzzReaders, readers } from './readers'

/** The long form is `npm run fuzz`. */
const INPUTS = 400

it('reads whatever is typed or brought without a fault of its own, and without standing still', async () => {
  const told = await fuzzReaders({ inputs: INPUTS, source: seededSource(43) })
  expect(told.flatMap(({ reader, wrong }) => wrong.map((one) => `${reader}: ${one}`))).toEqual([])
  expect(told).toHaveLength(readers().length)
})

it('would tell of a reader that throws what it does not say', async () => {
  const source = seededSource(7)
  const told = await fuzzReaders({ inputs: 50, source, of: 'decodeTrack' })
  expect(told[0]?.wrong).toEqual([])
  const [track] = readers().filter(({ name }) => name === 'decodeTrack')
  expect(() => track!.read(Uint8Array.of(9, 9, 9))).toThrow(RangeError)
})
