import { afterAll, beforeAll, expect, it } from 'vitest'
import { seededSource } from '#core'
import { fuzzRoutes } from './testing/fuzz-routes'
import { startHarness, type Harness } from './testing/harness'

let harness: Harness
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())

/** The long form is `npm run fuzz`. */
const INPUTS = 12

it('answers whatever is sent to any route in words: no fault of its own, no silence', async () => {
  const told = await fuzzRoutes(harness, { inputs: INPUTS, source: seededSource(41) })
  expect(told.flatMap(({ route, wrong }) => wrong.map((one) => `${route}: ${one}`))).toEqual([])
  // What is sent is not all of it nonsense: some gets through, some is refused for what is in it.
  const statuses = new Set(told.flatMap(({ answers }) => Object.keys(answers).map(Number)))
  for (const status of [200, 204, 401, 404, 422]) expect([...statuses]).toContain(status)
  // And the server still works.
  const client = await harness.studio('After It All')
  expect((await client.send('GET', '/students')).status).toBe(200)
})
