// `npm run bench:verdict`: simulated players with known faults, judged, beside oracles that are told scatter and size. Fails where
// an aim is missed.
import { randomNormal } from 'd3-random'
import { judgeTake, seededSource } from '../../core'
import { rowsOf } from '../../core/verdict/candidates'
import { evidenceOf } from '../../core/verdict/evidence'
import { ratioOf } from '../ratio'
import {
  countBones,
  countEye,
  countFormula,
  together,
  toleranceOf,
  type Cell,
  type Counted,
  type Sizes,
} from './cells'
import { historyMs } from './history'
import {
  landingsOf,
  judged,
  KINDS,
  lineOf,
  NOISES,
  placesOn,
  play,
  saidOf,
  stringing,
  truthSaid,
  type Played,
} from './players'

const SEEDS = Number(process.argv[2] ?? 100)
const SIZES = [8, 15, 25]
const SCATTERS = [4, 8, 12]
const CELLS = [
  { notes: 16, strings: 2 },
  { notes: 24, strings: 2 },
  { notes: 40, strings: 4 },
] as const
/** Of fewer sizes nobody can say how many hold. */
const FEWEST_SIZES = 60
const faults: string[] = []
const pct = (n: number, of: number) => (of === 0 ? '—' : ((100 * n) / of).toFixed(1))
const table = (...head: readonly string[]) => {
  console.log(`\n| ${head.join(' | ')} |\n|${head.map(() => '---:|').join('')}`)
}
const row = (...cells: readonly (string | number)[]) => console.log(`| ${cells.join(' | ')} |`)

const HEADS = [
  'fault',
  'scatter',
  'notes',
  'strings',
  'oracle',
  'told',
  'right of told',
  'right of all',
  'sound blamed',
]
function cellsOf({ size, scatter, notes, strings }: Cell, counted: Counted): (string | number)[] {
  const { all, oracle, told, right, blamed, sound } = counted
  const shares = [pct(oracle, all), pct(told, all), pct(right, told), pct(right, all), pct(blamed, sound)]
  return [size, scatter, notes, strings, ...shares]
}

/** Three standard errors of a share that is counted so often: chance is no miss. */
const chance = (share: number, count: number) => 3 * Math.sqrt((share * (1 - share)) / count)

function aims(where: string, counted: Counted): void {
  const { all, oracle, told, right, blamed, sound } = counted
  if (oracle >= 0.98 * all && right < 0.95 * all) faults.push(`${where}: right ${pct(right, all)} %, aim 95`)
  if (told > 0.05 * all && right / told < (0.95 * oracle) / all - chance(right / told, told))
    faults.push(`${where}: right of what is told ${pct(right, told)} %, aim 0.95 of ${pct(oracle, all)}`)
  if (blamed / sound > 0.03) faults.push(`${where}: sound hands blamed ${pct(blamed, sound)} %, aim 3`)
}

function sizeAims(where: string, all: readonly Sizes[]): void {
  const { count, held, ratio } = together(all)
  if (count < FEWEST_SIZES) return
  if (Math.abs(held / count - 0.95) > 0.03 + chance(0.95, count) / 3)
    faults.push(`${where}: ± hold ${pct(held, count)} % of ${count}, aim 95 ± 3`)
  if (Math.abs(ratio - 1) > 0.1)
    faults.push(`${where}: median size ${ratio.toFixed(2)} × the true one, aim 0.9–1.1`)
}

for (const noise of NOISES) {
  console.log(`\nFormula players, errors: ${noise}`)
  table(...HEADS, '± hold', 'median size')
  const byKind = new Map<string, Sizes[]>()
  for (const size of SIZES)
    for (const scatter of SCATTERS)
      for (const { notes, strings } of CELLS) {
        const counted = countFormula({ size, scatter, notes, strings }, noise, SEEDS)
        for (const [kind, sizes] of counted.sizes) byKind.set(kind, [...(byKind.get(kind) ?? []), sizes])
        const where = `${noise}, ${size} cents, scatter ${scatter}, ${notes} notes`
        aims(where, counted)
        sizeAims(where, [...counted.sizes.values()])
        const { count, held, ratio } = together([...counted.sizes.values()])
        row(
          ...cellsOf({ size, scatter, notes, strings }, counted),
          pct(held, count),
          count > 0 ? ratio.toFixed(2) : '—',
        )
      }
  table('kind', 'sizes told', '± hold', 'median size')
  for (const [kind, sizes] of byKind) {
    const { count, held, ratio } = together(sizes)
    sizeAims(`${noise}, ${kind}`, sizes)
    row(kind, count, pct(held, count), ratio.toFixed(2))
  }
}

console.log('\nA hand of bones')
table(...HEADS)
for (const size of SIZES)
  for (const scatter of SCATTERS)
    for (const { notes, strings } of CELLS) {
      const counted = countBones({ size, scatter, notes, strings }, SEEDS)
      aims(`bones, ${size} cents, scatter ${scatter}, ${notes} notes`, counted)
      row(...cellsOf({ size, scatter, notes, strings }, counted))
    }

console.log('\nBy eye, tolerance 15')
table('fault', 'eye’s error, mm', 'notes', 'told', 'right of told', 'sound blamed', '± hold', 'median size')
for (const size of [20, 35, 60])
  for (const eyeMm of [0.8, 1.5, 2.5])
    for (const { notes, strings } of [CELLS[0], { notes: 32, strings: 4 }]) {
      const { all, told, right, blamed, sound, sizes } = countEye(
        size,
        eyeMm,
        notes,
        strings,
        Math.ceil(SEEDS / 4),
      )
      const { count, held, ratio } = together([...sizes.values()])
      const where = `eye ${eyeMm} mm, ${size} cents, ${notes} notes`
      if (count >= FEWEST_SIZES && held < 0.9 * count)
        faults.push(`${where}: ± hold ${pct(held, count)} %, aim 90`)
      if (blamed > 0.03 * sound + (chance(0.03, sound) * sound) / 3)
        faults.push(`${where}: sound hands blamed ${pct(blamed, sound)} %, aim 3`)
      row(
        size,
        eyeMm,
        notes,
        pct(told, all),
        pct(right, told),
        pct(blamed, sound),
        pct(held, count),
        count > 0 ? ratio.toFixed(2) : '—',
      )
    }

const rows: [string, string, string, boolean][] = []

const PAIRS = KINDS.flatMap((a, i) => KINDS.slice(i + 1).map((b) => [a, b] as const))
for (const [size, scatter] of [
  [20, 6],
  [15, 8],
] as const) {
  let [both, pairs] = [0, 0]
  for (const [k, pair] of PAIRS.entries())
    for (let seed = 0; seed < SEEDS / 5; seed++) {
      const played = play(2_000_000 + 1000 * k + seed, pair, size, 'normal', scatter, lineOf(4, 40))
      const verdict = judged(played, 4, 10)
      const named = 'findings' in verdict ? verdict.findings.map((one) => saidOf(one).name) : []
      pairs++
      if (played.truth.split(' + ').every((one) => named.includes(one))) both++
    }
  rows.push([
    `two faults of ${size} cents at a scatter of ${scatter}, 40 notes: both named`,
    `${pct(both, pairs)} % of ${pairs}`,
    '≥ 90',
    both >= 0.9 * pairs,
  ])
}

let [changed, wild, tapes, tapesBlamed] = [0, 0, 0, 0]
for (const size of SIZES)
  for (const scatter of SCATTERS)
    for (const [k, kind] of KINDS.entries())
      for (let seed = 0; seed < SEEDS / 5; seed++) {
        const played = play(3_000_000 + 1000 * k + seed, [kind], size, 'normal', scatter, lineOf(2, 24))
        const said = truthSaid(judged(played, 2, toleranceOf(size)))
        if (said !== played.truth) continue
        const cents = played.cents.slice()
        cents[seed % cents.length] = 80
        wild++
        if (truthSaid(judged({ ...played, cents }, 2, toleranceOf(size))) !== said) changed++
      }
for (const [k, kind] of KINDS.entries())
  for (let seed = 0; seed < SEEDS; seed++) {
    const played = play(3_000_000 + 1000 * k + seed, [kind], 15, 'normal', 8, lineOf(2, 24))
    const laid = randomNormal.source(seededSource(5_000 + seed))(0, 1)
    const tapesMm = placesOn(4)
      .filter((t) => t.stringIndex === 2)
      .map((t) => t.placeMm + laid())
    const exercise = { name: { kind: 'free' as const }, notes: placesOn(2) }
    const take = { stringing, exercise, landings: landingsOf(played), toleranceCents: 10, tapesMm }
    tapes++
    if (judgeTake(take).outcome === 'tape_misplaced') tapesBlamed++
  }
rows.push(
  ['verdicts changed by one note 80 cents off', `${pct(changed, wild)} % of ${wild}`, '0', changed === 0],
  [
    'tapes laid to 1 mm that take the blame of a hand with a fault of its own',
    `${pct(tapesBlamed, tapes)} % of ${tapes}`,
    '≤ 2',
    tapesBlamed <= 0.02 * tapes,
  ],
)

/** Notes after which a player is given up. */
const LONGEST = 176
const cut = (played: Played, notes: number): Played => ({
  ...played,
  line: played.line.slice(0, notes),
  cents: played.cents.slice(0, notes),
})
for (const first of [8, 16, 24]) {
  let [asked, ended] = [0, 0]
  for (const [k, kind] of KINDS.filter((one) => one !== 'creep').entries())
    for (let seed = 0; seed < SEEDS / 4; seed++) {
      const long = play(4_000_000 + 1000 * k + seed, [kind], 15, 'normal', 8, lineOf(2, LONGEST))
      const verdict = judged(cut(long, first), 2, 10)
      if (verdict.outcome !== 'not_enough_notes' || !verdict.more) continue
      asked++
      const until = Math.min(LONGEST, first + verdict.moreTo!)
      for (let notes = first + 1; notes <= until; notes += notes < first + 16 ? 1 : 4)
        if (judged(cut(long, notes), 2, 10).outcome !== 'not_enough_notes') {
          ended++
          break
        }
    }
  rows.push([
    `answers within the notes more that were said, after ${first}`,
    `${pct(ended, asked)} % of ${asked}`,
    '≥ 50',
    ended >= asked / 2,
  ])
}

const charted = historyMs()
rows.push([
  'five years, a thousand checks, drawn as series with trends',
  `${charted.toFixed(0)} ms`,
  '≤ 200',
  charted <= 200,
])

const large = {
  stringing,
  exercise: { name: { kind: 'free' as const }, notes: placesOn(4) },
  landings: landingsOf(play(7, ['finger 4'], 15, 'normal', 8, lineOf(4, 400))),
  toleranceCents: toleranceOf(15),
}
const evidence = evidenceOf(large)
const effects = rowsOf(evidence).map((one) => one.effects)
const heard = Float64Array.from(evidence.notes, ({ cents }) => cents)
/** What no way of weighing can do without: every pair of candidates with one another and with the notes, once. */
function bareSums(): number {
  let all = 0
  for (const a of [heard, ...effects])
    for (const b of effects) for (let i = 0; i < a.length; i++) all += a[i]! * b[i]!
  return all
}
const speed = ratioOf('four hundred readings', () => judgeTake(large), bareSums, 3)
rows.push([
  'a verdict over four hundred readings, against the bare sums over its candidates',
  `${speed.oursMs.toFixed(1)} ms, ${speed.ratio.toFixed(1)} ×`,
  '≤ 3 ×',
  speed.ratio <= 3,
])

table('measured', 'ours', 'aim')
for (const [name, ours, aim, isMet] of rows) {
  row(name, ours, aim)
  if (!isMet) faults.push(`${name}: ${ours}, aim ${aim}`)
}
console.log('')
for (const fault of faults) console.log(`Outside its aim: ${fault}.`)
if (faults.length > 0) process.exitCode = 1
