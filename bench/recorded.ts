// `npm run bench:recorded`: the ear on recorded strings that were not listened to while it was built (`-- building` for the other
// half). Fails where an aim is missed. Needs fluidsynth, espeak-ng and the recordings, and fetches them.
import { median } from 'd3-array'
import { align, hearNotes, seededSource, type FamilyId } from '../core'
import { doubtOf } from '../core/listen/align/doubt'
import { fontRecordings, recordings, type Recording } from './recorded/recordings'
import { standInFor, unevennessOf } from './recorded/stand-in'
import { beside, clicks, hum, noise, room, voice, type Surroundings } from './recorded/surroundings'
import {
  alone,
  heardAgain,
  judgedHands,
  longest,
  notesInOneBow,
  pairOf,
  SCALES,
  stepOf,
  takeErrors,
  takeOf,
} from './recorded/trials'

const isHeldBack = process.argv[2] !== 'building'
const source = seededSource(2026)
const fonts = [
  ...fontRecordings('viola', [48, 50, 52, 55, 57, 60, 62, 64, 67, 69, 71, 74]),
  ...fontRecordings('violin', [55, 62, 69, 76]),
  ...fontRecordings('cello', [36, 43, 50, 57]),
  ...fontRecordings('bass', [28, 33, 38, 43]),
]
const all = [...recordings(), ...fonts].filter((r) => r.isHeldBack === isHeldBack)
/** Where hands are taught. */
const taught = all.filter((r) => r.midi <= 88)
const FAMILIES = Object.keys(SCALES) as FamilyId[]
const poolOf = (family: FamilyId): Recording[] =>
  [...recordings(), ...fonts].filter(
    (r) => r.family === family && (r.isHeldBack === isHeldBack || family === 'viola'),
  )

let isMissed = false
function tell(what: string, share: number, least: number, more = ''): void {
  const missed = !(share >= least)
  isMissed ||= missed
  console.log(
    `${missed ? 'MISSED' : 'met   '} ${what}: ${(100 * share).toFixed(1)} % (aim ${100 * least} %)${more && `; ${more}`}`,
  )
}
const shareOf = <T>(values: readonly T[], holds: (value: T) => boolean) =>
  values.filter(holds).length / Math.max(1, values.length)
const quantile = (values: readonly number[], p: number) => {
  const sorted = values.map(Math.abs).sort((a, b) => a - b)
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))] ?? NaN
}
const spread = (values: readonly number[]) =>
  [0.5, 0.95, 0.99].map((p) => `${100 * p} %: ${quantile(values, p).toFixed(2)}`).join(', ')

const bows = all.flatMap((r) => [1, 1.6, 2.2].map((s) => notesInOneBow(r, s)))
tell(
  'one bow is one note',
  shareOf(bows, (n) => n === 1),
  1,
  `${bows.length} bows`,
)

const pairs = taught.flatMap((r) => [0.3, 0.5, 0.8].map((s) => pairOf(r, 'rebowed', s).length))
tell(
  'a turned bow is two notes',
  shareOf(pairs, (n) => n === 2),
  0.98,
  `${pairs.length} pairs`,
)

const again = taught.flatMap((r) => heardAgain(r, source))
const moved = again.map((a) => a.landingCents)
tell(
  'landing heard again within 2 cents',
  shareOf(moved, (c) => Math.abs(c) <= 2),
  0.95,
  spread(moved),
)
tell(
  'within 5 cents',
  shareOf(moved, (c) => Math.abs(c) <= 5),
  0.99,
)
tell(
  'its ± holds',
  shareOf(again, (a) => Math.abs(a.landingCents) <= 1.96 * a.landingSigmaCents),
  0.92,
)

const OPEN =
  /^(violin G3|cello (C2|G2 v2|D3)|(viola (48|55|62|69)|violin (55|62|69|76)|cello (36|43|50|57)|bass (28|33|38|43)) \(font\))$/
const opens = [...recordings(), ...fonts]
  .filter(({ name }) => OPEN.test(name))
  .flatMap((r) => {
    const [note] = longest(hearNotes(alone(r), r.sampleRateHz).notes)
    return note ? [note.landing.cents - note.settled.cents] : [Infinity]
  })
tell(
  'an open string lands where it settles, 2 cents',
  shareOf(opens, (c) => Math.abs(c) <= 2),
  0.95,
  spread(opens),
)

for (const join of ['slurred', 'detached'] as const) {
  const steps = taught.flatMap((r) =>
    [60, 80, 100, 140, -70, -110].map((c) => takeErrors(stepOf(r, c, join, 0.5))),
  )
  tell(
    `steps of 60 to 140 cents ${join}: both heard`,
    shareOf(steps, (e) => e.lost === 0),
    0.98,
  )
}

for (const family of FAMILIES) {
  const takes = (['slurred', 'detached', 'rebowed'] as const).flatMap((join) =>
    [0.4, 0.6].map((lastsS) => takeErrors(takeOf(poolOf(family), SCALES[family], { join, lastsS }, source))),
  )
  const landings = takes.flatMap(({ found }) => found.map((f) => f.landingCents))
  const played = landings.length + takes.reduce((sum, t) => sum + t.lost, 0)
  const invented = takes.reduce((sum, t) => sum + t.invented, 0)
  tell(`takes of the ${family}: found`, landings.length / played, 1, `${invented} invented of ${played}`)
  tell(
    '  landing within 3 cents',
    shareOf(landings, (c) => Math.abs(c) <= 3),
    0.95,
    spread(landings),
  )
}

const another = takeOf(poolOf('violin'), SCALES.violin, { join: 'detached', lastsS: 0.43 }, source).samples
const DISTURBED: Record<string, Surroundings> = {
  'noise 30 dB': noise(30),
  'noise 20 dB': noise(20),
  'hum 20 dB': hum(20),
  'room 0.5 s': room(0.5, -12),
  'room 1.5 s': room(1.5, -6),
  clicks: clicks(6),
  'voice 20 dB': beside(voice(44_100), 20),
  'voice 10 dB': beside(voice(44_100), 10),
  'another player 20 dB': beside(another, 20),
  'another player 12 dB': beside(another, 12),
}
for (const [name, surroundings] of Object.entries(DISTURBED)) {
  const off = FAMILIES.flatMap((family) => {
    const take = takeOf(poolOf(family), SCALES[family], { join: 'detached', lastsS: 0.5 }, source)
    const { notes } = hearNotes(surroundings(take.samples, take.sampleRateHz, source), take.sampleRateHz)
    const { matches } = align(
      notes.map((n) => n.landing),
      take.notes,
    )
    const loudDb = median(matches.flatMap((m, i) => (m.kind === 'meant' ? [notes[i]!.levelDb] : []))) ?? 0
    return matches.flatMap((match, i) => {
      const { landing } = notes[i]!
      // What no verdict uses is not asked about.
      if (match.kind === 'extra' || match.isWrong || doubtOf(notes[i]!, match, { octaves: 0, loudDb }))
        return []
      const cents = Math.abs(landing.cents - take.notes[match.index]!.heardAlone().landingCents)
      return [{ cents, sigmaCents: landing.sigmaCents }]
    })
  })
  tell(
    `${name}: readings that are right, or say that they may not be`,
    shareOf(off, ({ cents, sigmaCents }) => cents <= 8 || cents <= 3 * sigmaCents),
    0.99,
    `${off.length} readings`,
  )
}

const hands = FAMILIES.flatMap((family) => judgedHands(family, poolOf(family)))
tell(
  'a finger 40 to 150 cents off, another string, another piece: read or told',
  shareOf(hands, (h) => h.isTold),
  1,
  `${hands.length}`,
)
for (const { what } of hands.filter((h) => !h.isTold)) console.log(`         not told: ${what}`)

// The stand-in for a student, held against the recordings that it stands for: no row should be far from 1.
const real = recordings().filter((r) => r.midi <= 88)
const standIns = real.map((r) => standInFor(r, source))
console.log('\n| unevenness, nine in ten, of the recordings and of the stand-in | violin | cello | bass |')
console.log('|---|---:|---:|---:|')
const families = (['violin', 'cello', 'bass'] as const).map((family) => ({
  played: unevennessOf(real.filter((r) => r.family === family)),
  simulated: unevennessOf(standIns.filter((r) => r.family === family)),
}))
for (const [i, { what, unit }] of families[0]!.played.entries()) {
  const cells = families.map(({ played, simulated }) => {
    const [a, b] = [played[i]!.value, simulated[i]!.value]
    return `${a.toFixed(2)}, ${b.toFixed(2)} (${(b / a).toFixed(2)})`
  })
  console.log(`| ${what}, ${unit} | ${cells.join(' | ')} |`)
}

if (isMissed) process.exitCode = 1
