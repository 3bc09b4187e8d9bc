// `npm run bench:intervals`: how often what we state is so, counted in simulation. Fails where a share is outside its bounds.
import { randomNormal } from 'd3-random'
import {
  calibrateByRings,
  calibratedSigmaMm,
  calibrationPrior,
  familyOf,
  growthOf,
  judgeStrings,
  placeOfCents,
  seededSource,
  STRING_SIGMA_MM,
  whenSpanIs,
  type LengthSource,
} from '#core'

interface Share {
  readonly name: string
  readonly percent: number
  readonly least: number
  readonly most: number
}

const TRIALS = 3000
const YEAR = 365.25
const MARKS = [203.91, 498.045, 701.955, 407.82, 905.865, 1200]

function share(name: string, trial: (n: number) => boolean | undefined, least: number, most: number): Share {
  const told = Array.from({ length: TRIALS }, (_, n) => trial(n)).filter((held) => held !== undefined)
  return {
    name: `${name} (${told.length})`,
    percent: (100 * told.filter(Boolean).length) / told.length,
    least,
    most,
  }
}

/** ± of a place from rings, where finds scatter as usual and twice as far. */
function rings(
  source: LengthSource,
  lengthMm: number,
  count: number,
  scatterMm: number,
  least: number,
): Share {
  const gauss = randomNormal.source(seededSource(count))(0, 1)
  const prior = calibrationPrior(source, lengthMm)
  return share(
    `± of a place: ${count} rings, length ${source} ${lengthMm}, scatter ${scatterMm} mm`,
    () => {
      const [longer, offset] = [gauss() * prior.lengthSigmaMm, gauss() * prior.nutSigmaMm]
      const truth = (cents: number) => offset + placeOfCents(lengthMm + longer, cents)
      const fit = calibrateByRings(
        MARKS.slice(0, count).map((cents) => ({
          lengthMm,
          cents,
          placeMm: truth(cents) + gauss() * scatterMm,
          pressShiftMm: 0,
        })),
        prior,
      )
      const [cents = 0] = MARKS
      const fitted = fit.nutOffsetMm + placeOfCents(lengthMm + fit.lengthCorrectionMm, cents)
      return Math.abs(fitted - truth(cents)) <= 1.96 * calibratedSigmaMm(fit, cents)
    },
    least,
    98.5,
  )
}

/** The day on which a growing hand fits: four times in five, where a day is named. */
function growth(count: number, years: number, mmPerYear: number): Share {
  const noise = randomNormal.source(seededSource(count))(0, 1)
  const due = (years + 0.9) * YEAR
  return share(
    `day a hand fits: ${count} measurements, ${years} a, ${mmPerYear} mm a year`,
    () => {
      const spans = Array.from({ length: count }, (_, i) => {
        const day = (i * years * YEAR) / (count - 1)
        return { day, spanMm: 55 + (mmPerYear * day) / YEAR + noise() }
      })
      const line = growthOf(spans)
      if (line.outcome !== 'line') return undefined
      const when = whenSpanIs(line, 55 + (mmPerYear * due) / YEAR, years * YEAR)
      return when.outcome === 'on' ? when.earliestDay <= due && due <= when.latestDay : undefined
    },
    77,
    83,
  )
}

function evenBridge(sigmaMm: number, least: number): Share {
  const read = randomNormal.source(seededSource(9))(328, sigmaMm)
  const violin = familyOf('violin')
  return share(
    `an even bridge read to ${sigmaMm} mm is called even`,
    () => judgeStrings(violin, Array.from({ length: 4 }, read)).code === 'even',
    least,
    100,
  )
}

const shares = [
  ...(['bridge', 'harmonic', 'strings'] as const).flatMap((source) =>
    [1, 3, 6].map((count) => rings(source, 328, count, 0.35, 93.5)),
  ),
  ...[1, 3, 6].map((count) => rings('typical', 1050, count, 0.35, 93.5)),
  ...[4, 6].map((count) => rings('bridge', 328, count, 0.7, 86)),
  growth(6, 1, 4),
  growth(8, 2, 4),
  growth(12, 2, 4),
  evenBridge(STRING_SIGMA_MM, 96),
  evenBridge(0.35, 99),
]
console.log('| stated (trials that told) | so, % | bounds |')
console.log('|---|---:|---:|')
for (const { name, percent, least, most } of shares)
  console.log(`| ${name} | ${percent.toFixed(1)} | ${least} – ${most} |`)
const outside = shares.filter(({ percent, least, most }) => !(percent >= least && percent <= most))
for (const { name, percent } of outside)
  console.error(`Outside its bounds: ${name}, ${percent.toFixed(1)} %.`)
if (outside.length > 0) process.exitCode = 1
