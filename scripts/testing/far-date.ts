/**
 * Every test of the units and of the server runs at a far date and in a far zone, so that none can lean on today: what passes
 * there passes tomorrow. The clock runs on from there as clocks do. `JADEFELL_TEST_DATE=now` gives the machine's own, and any
 * other ISO instant that one.
 */
const named = process.env['JADEFELL_TEST_DATE'] ?? '2027-12-31T11:00:00Z'

if (named !== 'now') {
  const Real = Date
  const ahead = Real.parse(named) - Real.now()
  if (Number.isNaN(ahead))
    throw new Error(`JADEFELL_TEST_DATE: “${named}” is no instant. Write 2027-12-31T11:00:00Z, or now.`)

  class FarDate extends Real {
    constructor(...given: unknown[]) {
      if (given.length === 0) super(Real.now() + ahead)
      // @ts-expect-error the forms of Date’s own constructor, handed on as they came
      else super(...given)
    }
    static override now(): number {
      return Real.now() + ahead
    }
  }
  globalThis.Date = FarDate as DateConstructor
}
