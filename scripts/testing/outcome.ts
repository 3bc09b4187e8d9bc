import { stripVTControlCharacters } from 'node:util'
import { z } from 'zod'

/** What one part of `npm test` ended with. */
export interface Outcome {
  readonly passed: number
  readonly failed: number
  readonly skipped: number
  /** Each test that failed: its file, its name, and the first lines of why. */
  readonly faults: readonly string[]
}

/** Lines of a failure that are told again at the end. */
const TOLD_LINES = 12

const unitReport = z.object({
  numPassedTests: z.number(),
  numFailedTests: z.number(),
  numPendingTests: z.number(),
  numTodoTests: z.number(),
  testResults: z.array(
    z.object({
      name: z.string(),
      status: z.string(),
      message: z.string().optional(),
      assertionResults: z.array(
        z.object({
          fullName: z.string(),
          status: z.string(),
          failureMessages: z.array(z.string()).nullish(),
        }),
      ),
    }),
  ),
})

/** Reads the JSON report of the tests of core, words, pages and server. */
export function unitOutcome(json: string): Outcome {
  const report = unitReport.parse(JSON.parse(json))
  const faults = report.testResults.flatMap((file) => {
    const failed = file.assertionResults.filter((test) => test.status === 'failed')
    // A file that could not be read has no test that failed.
    if (failed.length === 0 && file.status === 'failed')
      return [told(file.name, 'the file itself', file.message ?? '')]
    return failed.map((test) => told(file.name, test.fullName, (test.failureMessages ?? []).join('\n')))
  })
  return {
    passed: report.numPassedTests,
    failed: report.numFailedTests,
    skipped: report.numPendingTests + report.numTodoTests,
    faults,
  }
}

interface Suite {
  readonly suites?: readonly Suite[] | undefined
  readonly specs: readonly z.infer<typeof spec>[]
}
const failure = z.object({ message: z.string().optional() })
const spec = z.object({
  title: z.string(),
  file: z.string(),
  ok: z.boolean(),
  tests: z.array(
    z.object({
      results: z.array(z.object({ errors: z.array(failure) })),
    }),
  ),
})
const suite: z.ZodType<Suite> = z.lazy(() =>
  z.object({ suites: z.array(suite).optional(), specs: z.array(spec) }),
)
const browserReport = z.object({
  stats: z.object({
    expected: z.number(),
    flaky: z.number(),
    unexpected: z.number(),
    skipped: z.number(),
  }),
  suites: z.array(suite),
  errors: z.array(failure),
})

/** Reads the JSON report of the tests in the browser. */
export function browserOutcome(json: string): Outcome {
  const { stats, suites, errors } = browserReport.parse(JSON.parse(json))
  const faults = suites.flatMap(specsOf).flatMap((one) => {
    if (one.ok) return []
    const found = one.tests.flatMap((test) => test.results.flatMap((result) => result.errors))
    return [told(one.file, one.title, found.map((error) => error.message ?? '').join('\n'))]
  })
  // A file that could not be read belongs to no suite.
  faults.push(...errors.map((error) => told('the browser’s tests', 'as a whole', error.message ?? '')))
  return {
    passed: stats.expected + stats.flaky,
    failed: stats.unexpected,
    skipped: stats.skipped,
    faults,
  }
}

function specsOf(part: Suite): Suite['specs'] {
  return [...part.specs, ...(part.suites ?? []).flatMap(specsOf)]
}

function told(file: string, name: string, why: string): string {
  const lines = stripVTControlCharacters(why).split('\n').slice(0, TOLD_LINES)
  return [`- ${file} › ${name}`, ...lines.map((line) => `    ${line}`)].join('\n')
}
