// `npm run bench:practice`: a term's plans against the barest loop, small plans against every plan there is, and how true an effect's
// interval is. Ends with an error where an aim is missed.
import { randomNormal, randomUniform } from 'd3-random'
import {
  dayNumber,
  dayOf,
  effectOf,
  minutesOf,
  planWeek,
  exerciseBook,
  PRACTICE_IDS,
  seededSource,
  USUAL_SCHOOLS,
  type PlanFacts,
  type PlannedCard,
} from '#core'
import { fingerFinding, frameFinding } from '../core/practice/testing'
import { ratioOf } from './ratio'

const STUDENTS = 80
const WEEKS = 14
const MONDAY = dayNumber('2026-09-07')
const MINUTES = 20
const AT_HOME = PRACTICE_IDS.filter((id) => id !== 'tune_strings')

function factsOf(seed: number, asked: PlanFacts['asked'] = []): PlanFacts {
  const on = dayOf(MONDAY - 7 - (seed % 20))
  return {
    familyId: 'violin',
    strings: 4,
    age: 8 + (seed % 8),
    schools: USUAL_SCHOOLS,
    isBeginner: true,
    pains: 0,
    closedGates: seed % 2 ? ['fourth_finger'] : [],
    found: [
      { finding: fingerFinding(((seed % 4) + 1) as 1, -20), takenOn: on, certainty: 1 },
      { finding: frameFinding(-4), takenOn: on, certainty: 0.6 },
    ],
    held: [{ finding: { code: 'creep', offsetMm: 2, plusMinusMm: 1, cents: 10 }, heldOn: [on] }],
    setup: [{ itemId: 'tension', answer: seed % 3 ? 'nearly' : 'no', seenOn: on }],
    learning: ['fourth/1234/212'],
    pieces: ['Ferry Steps'],
    log: ['find_elbow', 'finger_rounds', 'come_home'].map((exerciseId) => ({ exerciseId, on })),
    asked,
  }
}

const daysOf = (week: number, of = [0, 1, 2, 3, 5, 6]) => of.map((by) => dayOf(MONDAY + 7 * week + by))

function term() {
  const students = Array.from({ length: STUDENTS }, (_, i) => factsOf(i))
  const weeks = Array.from({ length: WEEKS }, (_, week) => daysOf(week))
  let plans: (readonly PlannedCard[])[] = []
  const ours = () => {
    plans = students.flatMap((facts) =>
      weeks.map((days) => planWeek(days[0]!, facts, { days, minutesADay: MINUTES }).cards),
    )
  }
  ours()
  // The same minutes in the same order, from a list that is there.
  const lists = students.map((_, i) =>
    plans[i * WEEKS]!.map(({ exerciseId, minutes, reason }) => ({ exerciseId, minutes, reason })),
  )
  const bare = () => {
    plans = lists.flatMap((list) =>
      weeks.map((days) => {
        const cards: PlannedCard[] = []
        let next = 0
        for (const on of days)
          for (let left = MINUTES; next < list.length && left >= list[next]!.minutes; next++) {
            const { exerciseId, minutes, reason } = list[next]!
            left -= minutes
            cards.push({ exerciseId, on, minutes, reason, isFixed: false })
          }
        return cards
      }),
    )
  }
  return ratioOf(`a term of ${STUDENTS} students planned / the same minutes handed out`, ours, bare, 20)
}

/** The least part of the optimum that a plan of up to six exercises on up to four days reached, over 200 seeds. */
function againstAll(): number {
  let least = 1
  for (let seed = 0; seed < 200; seed++) {
    const uniform = randomUniform.source(seededSource(seed))(0, 1)
    const asked = [...AT_HOME].sort(() => uniform() - 0.5).slice(0, Math.floor(uniform() * 3))
    const facts = { ...factsOf(seed, asked), age: 40 }
    const days = daysOf(0, [0, 1, 2, 4].slice(0, 2 + Math.floor(uniform() * 3)))
    const terms = { days, minutesADay: 3 + Math.floor(uniform() * 14) }
    const ours = planWeek(days[0]!, facts, terms)
    // What stands in a plan without an end to its minutes is what could stand: when, and how much of it.
    const free = planWeek(days[0]!, facts, { ...terms, minutesADay: 1000 }).cards
    least = Math.min(least, everyPlan(free, days, terms.minutesADay, ours.worth, facts))
  }
  return least
}

/** Worth of a plan by the sentence of the objective, written anew: each day's session its worth, a review once and a tenth less a day. */
function everyPlan(
  free: readonly PlannedCard[],
  days: readonly string[],
  minutesADay: number,
  ours: number,
  facts: PlanFacts,
): number {
  const ids = [...new Set(free.map(({ exerciseId }) => exerciseId))].slice(0, 6)
  const worthOf = new Map(
    ids.map((id) => {
      const alone = planWeek(days[0]!, { ...facts, ...onlyOf(facts, free, id) }, { days, minutesADay: 1000 })
      return [id, alone.worth / alone.cards.length]
    }),
  )
  const reviews = new Map(
    free.filter(({ reason }) => reason.code === 'review').map((card) => [card.exerciseId, card.on]),
  )
  let best = 0
  function from(day: number, done: ReadonlySet<string>, worth: number): void {
    if (day === days.length) return void (best = Math.max(best, worth))
    for (let bits = 0; bits < 1 << ids.length; bits++) {
      let [minutes, gained] = [0, 0]
      const also = new Set(done)
      let fits = true
      ids.forEach((id, i) => {
        if (!(bits & (1 << i))) return
        const review = reviews.get(id)
        minutes += minutesOf(exerciseBook(facts.own).of(id), facts.strings)
        if (review === undefined) {
          fits &&= free.some((card) => card.exerciseId === id && card.on === days[day])
          gained += worthOf.get(id)!
        } else {
          const late = dayNumber(days[day]!) - dayNumber(review)
          fits &&= late >= 0 && !done.has(id)
          gained += worthOf.get(id)! * Math.max(0, 1 - 0.1 * late)
          also.add(id)
        }
      })
      if (fits && minutes <= minutesADay) from(day + 1, also, worth + gained)
    }
  }
  if (new Set(free.map(({ exerciseId }) => exerciseId)).size > ids.length) return 1
  from(0, new Set(), 0)
  return best === 0 ? 1 : ours / best
}

/** Facts that wish for one exercise alone, at the worth that it has among the others. */
function onlyOf(facts: PlanFacts, free: readonly PlannedCard[], id: string): Partial<PlanFacts> {
  const { reason } = free.find(({ exerciseId }) => exerciseId === id)!
  return {
    log: [...facts.log, { exerciseId: id, on: dayOf(MONDAY - 1) }].filter(
      ({ exerciseId }) => exerciseId !== id || reason.code !== 'review',
    ),
    asked: reason.code === 'asked' ? facts.asked.filter((one) => one === id) : [],
    found: reason.code === 'finding' ? facts.found.filter(({ finding }) => finding === reason.finding) : [],
    setup: reason.code === 'setup' ? facts.setup : [],
    held: reason.code === 'review' ? facts.held : [],
    learning: [],
    pieces: reason.code === 'piece' ? facts.pieces : [],
    closedGates: reason.code === 'gate' ? facts.closedGates : [],
    ...(reason.code === 'pattern' && { learning: facts.learning }),
  }
}

const HISTORIES = 2000
const SCATTER = 4
const LOOKS = 8

/** How often the interval holds the change, and how often "faster" is said: of a hand that stays, one that mends by itself, one chosen at its worst. */
function effects() {
  const gauss = randomNormal.source(seededSource(31))(0, SCATTER)
  return (['stays', 'mends by itself', 'chosen at its worst', 'helped'] as const).map((kind) => {
    let [held, faster] = [0, 0]
    for (let run = 0; run < HISTORIES; run++) {
      const slope = kind === 'mends by itself' ? -0.25 : kind === 'helped' ? -0.5 : 0
      const before = Array.from({ length: LOOKS }, (_, i) => {
        const day = 7 * (i - LOOKS + 1)
        return { day, off: 25 + (kind === 'mends by itself' ? slope * day : 0) + gauss() }
      })
      // The exercise begins where the hand was furthest off of the last four looks.
      const begun =
        kind === 'chosen at its worst' ? before.slice(-4).reduce((a, b) => (b.off > a.off ? b : a)).day : 0
      const kept = before.filter(({ day }) => day <= begun)
      const since = Array.from({ length: LOOKS }, (_, i) => {
        const day = begun + 7 * (i + 1)
        return { day, off: 25 + slope * (kind === 'mends by itself' ? day : day - begun) + gauss() }
      })
      const effect = effectOf([...kept, ...since], begun)
      if (effect.code !== 'changed') throw new Error('enough looks')
      const change = slope * (since.at(-1)!.day - begun)
      held += Number(effect.low <= change && change <= effect.high)
      faster += Number(effect.isFaster)
    }
    return { kind, held: held / HISTORIES, faster: faster / HISTORIES }
  })
}

const faults: string[] = []
const planned = term()
console.log(
  `${planned.name}: ${planned.oursMs.toFixed(1)} ms, ${planned.peerMs.toFixed(2)} ms, ${planned.ratio.toFixed(1)} (≤ ${planned.aim})`,
)
if (!(planned.ratio <= planned.aim)) faults.push('the term')
const least = againstAll()
console.log(
  `small plans: at the least ${(100 * least).toFixed(2)} % of the best there is, 200 seeds (≥ 98 %)`,
)
if (!(least >= 0.98)) faults.push('small plans')
for (const { kind, held, faster } of effects()) {
  console.log(
    `a hand that ${kind}: its interval holds ${(100 * held).toFixed(1)} % (95 ± 2), “faster” is said of ${(100 * faster).toFixed(1)} %`,
  )
  if (Math.abs(held - 0.95) > 0.02) faults.push(`interval: ${kind}`)
  if (kind !== 'helped' && faster > 0.05) faults.push(`faster: ${kind}`)
}
if (faults.length > 0) {
  console.error(`Missed: ${faults.join(', ')}.`)
  process.exitCode = 1
}
