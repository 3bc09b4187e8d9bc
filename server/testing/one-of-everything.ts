import { v7 as uuid } from 'uuid'
import type {
  Attachment,
  BodyFit,
  Check,
  HandMeasurement,
  Instrument,
  OpenSession,
  Pain,
  Person,
  Plan,
  RingFind,
  SetupRound,
  TapeEvent,
} from '#contracts'
import { heardDraft, setupRound, silence, weekPlan, type Client } from './harness'

/** A row of everything that a path or a body can name in a studio, by the name it gives it. */
export async function oneOfEverything(client: Client, name: string): Promise<Record<string, string>> {
  const { student, instrument } = await client.player(name)
  const check = await client.make<Check>('POST', `/students/${student.id}/checks`, heardDraft(instrument.id))
  await client.make('POST', `/instruments/${instrument.id}/tape-sets`, {
    schoolId: 'first',
    system: 'fifths',
    tapeWidthMm: 3,
    laidOn: '2026-11-28',
  })
  const [event] = await client.make<TapeEvent[]>('GET', `/instruments/${instrument.id}/tape-events`)
  const find = await client.make<RingFind>('POST', `/instruments/${instrument.id}/ring-finds`, {
    string: 'D4',
    note: 'E4',
    system: 'fifths',
    placeMm: 32.1,
    foundOn: '2026-11-28',
  })
  const hand = await client.make<HandMeasurement>('POST', `/students/${student.id}/hands`, {
    measuredOn: '2026-11-28',
    comfortableSpanMm: 63.25,
  })
  await client.make('POST', `/students/${student.id}/mastery`, {
    marks: [{ kind: 'pattern', item: 'fourth/1234/212', state: 'secure' }],
  })
  await client.make('POST', '/fingerings', {
    line: {
      family: 'violin',
      tuning: ['G3', 'D4', 'A4', 'E5'],
      frameId: 'fourth',
      keyId: 'G:major',
      figure: 'arpeggio',
      octaves: 1,
    },
    notes: [0, 2, 0, 3, 0, 2, 0].map((finger, i) => ({ stringIndex: [0, 0, 1, 1, 1, 0, 0][i], finger })),
    settled: [3],
  })
  const round = await client.make<SetupRound>('POST', `/students/${student.id}/setup-rounds`, setupRound())
  const pain = await client.make<Pain>('POST', `/students/${student.id}/pains`, {
    toldOn: '2026-11-28',
    place: 'left wrist',
  })
  const fit = await client.make<BodyFit>('POST', `/students/${student.id}/body-fits`, {
    family: 'violin',
    fittedOn: '2026-11-28',
    handsOff: 5,
  })
  await client.make('POST', `/students/${student.id}/gate-marks`, {
    gate: 'vibrato',
    item: 'steady_bow',
    state: 'yes',
  })
  const plan = await client.make<Plan>('POST', `/students/${student.id}/plans`, weekPlan())
  await client.make('POST', `/students/${student.id}/practice`, {
    entries: [{ exerciseId: 'shake_out', on: '2026-11-28', isDone: true, minutes: 5 }],
  })
  const [session] = await client.make<OpenSession[]>('GET', '/sessions')
  await client.allowSound(student)
  const file = await client.make<Attachment>('POST', `/attachments/check/${check.id}`, silence())
  const spare = await client.make<Instrument>('POST', '/instruments', {
    label: 'with nobody',
    family: 'violin',
    sizeId: '1/2',
  })
  const { person } = await client.make<{ person: Person }>('POST', '/people', {
    name: `${name}, who teaches`,
    email: `${uuid()}@lantern.example`,
  })
  return {
    userId: person.id,
    spareId: spare.id,
    record: 'check',
    recordId: check.id,
    attachmentId: file.id,
    studentId: student.id,
    instrumentId: instrument.id,
    checkId: check.id,
    eventId: event?.id ?? '',
    findId: find.id,
    handId: hand.id,
    roundId: round.id,
    painId: pain.id,
    fitId: fit.id,
    planId: plan.id,
    sessionId: session?.id ?? '',
    current: client.password,
  }
}
