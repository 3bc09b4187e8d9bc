import { expect, it } from 'vitest'
import { drawnFaults } from './torture'

it('draws every fault as often as it weighs, the same again from the same seed, and none that this machine does not allow', () => {
  const drawn = drawnFaults(2000, 7, ['full'])
  const count = (fault: string) => drawn.filter((one) => one === fault).length
  expect(drawnFaults(2000, 7, ['full'])).toEqual(drawn)
  expect(count('full')).toBe(0)
  expect(new Set(drawn).size).toBe(10)
  // By weight 4 to 1; within four standard errors of a proportion (0.28 of 2000, binomial).
  const weights = 4 + 4 + 2 + 0.5 + 1 + 0.5 + 0.3 + 1 + 1 + 0.5
  const expected = (4 / weights) * 2000
  expect(Math.abs(count('server') - expected)).toBeLessThan(4 * Math.sqrt(expected * (1 - 4 / weights)))
  expect(drawnFaults(2000, 7)).toContain('full')
})
