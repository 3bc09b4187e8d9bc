import { expect, test } from 'vitest'
import { browserOutcome, unitOutcome } from './outcome'

// Both reports were written by the tools themselves (Vitest 4.1, Playwright 1.65) and shortened by what is not read.
const UNITS = String.raw`{"numPassedTests":1,"numFailedTests":1,"numPendingTests":2,"numTodoTests":1,"testResults":[
  {"assertionResults":[],"status":"failed","message":"Cannot find module './nowhere' imported from /a/broken.test.ts","name":"/a/broken.test.ts"},
  {"assertionResults":[
    {"fullName":"holds","status":"passed","failureMessages":[]},
    {"fullName":"rings an octave","status":"failed","failureMessages":["AssertionError: expected 440 to be 880 // Object.is equality\n    at /a/unit.test.ts:3:45"]}],
    "status":"failed","message":"","name":"/a/unit.test.ts"}]}`

const ENDS = String.raw`{"suites":[{"title":"page.spec.ts","file":"page.spec.ts",
  "specs":[{"title":"holds","ok":true,"file":"page.spec.ts","tests":[{"results":[{"status":"passed","errors":[]}]}]}],
  "suites":[{"title":"an open string","file":"page.spec.ts","specs":[{"title":"rings an octave","ok":false,"file":"page.spec.ts","tests":[{"results":[
    {"status":"failed","errors":[{"message":"Error: \u001b[2mexpect(\u001b[22m\u001b[31mreceived\u001b[39m\u001b[2m).\u001b[22mtoBe\n\nExpected: \u001b[32m880\u001b[39m"}]}]}]}]}]}],
  "errors":[{"message":"Error: Cannot find module './nowhere'"}],
  "stats":{"expected":1,"skipped":3,"unexpected":1,"flaky":2}}`

test('a unit test that failed is told with its file, its name and why, a file that broke as itself', () => {
  const { faults, ...counts } = unitOutcome(UNITS)
  expect(counts).toEqual({ passed: 1, failed: 1, skipped: 3 })
  expect(faults).toEqual([
    "- /a/broken.test.ts › the file itself\n    Cannot find module './nowhere' imported from /a/broken.test.ts",
    '- /a/unit.test.ts › rings an octave\n    AssertionError: expected 440 to be 880 // Object.is equality\n        at /a/unit.test.ts:3:45',
  ])
})

test('a test in the browser as well, however deep it lies, without the terminal’s colours', () => {
  const { faults, ...counts } = browserOutcome(ENDS)
  expect(counts).toEqual({ passed: 3, failed: 1, skipped: 3 })
  expect(faults).toEqual([
    '- page.spec.ts › rings an octave\n    Error: expect(received).toBe\n    \n    Expected: 880',
    "- the browser’s tests › as a whole\n    Error: Cannot find module './nowhere'",
  ])
})

test('a report that is none is refused', () => {
  expect(() => unitOutcome('{}')).toThrow('numPassedTests')
})
