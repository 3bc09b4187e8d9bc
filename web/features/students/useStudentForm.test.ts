import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { IDEMPOTENCY_HEADER } from '#contracts'
import { StudentChange } from '#contracts/students'
import { A_STUDENT, fakeServer, freshStores, signedIn } from '../../testing'
import { studioDay } from '../../words/shown'
import { AS_STUDIO, AS_USUAL, useStudentForm } from './useStudentForm'

beforeEach(() => {
  localStorage.clear()
  freshStores()
  signedIn()
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const refused = {
  status: 422,
  body: {
    status: 422,
    code: 'invalid_request',
    title: 'No',
    fields: [{ path: 'name', message: 'Give the name.' }],
  },
}

it('turns a file into fields and back without changing it', async () => {
  const sent = fakeServer({ status: 200, body: A_STUDENT })
  const onSaved = vi.fn()
  const form = useStudentForm(onSaved)
  form.open(A_STUDENT)
  expect(form.fields).toMatchObject({ birthYear: '2017', tapeSchoolId: AS_USUAL, weekday: 6, time: '09:40' })
  await form.save()
  const {
    name,
    birthYear,
    family,
    level,
    toleranceCents,
    tapeSchoolId,
    system,
    lesson,
    note,
    version,
    soundConsent,
  } = A_STUDENT
  expect(sent[0]).toMatchObject({ method: 'PATCH', path: `/api/v1/students/${A_STUDENT.id}` })
  expect(sent[0]?.body).toEqual({
    name,
    birthYear,
    family,
    level,
    toleranceCents,
    tapeSchoolId,
    system,
    lesson,
    soundConsent,
    note,
    version,
  })
  expect(onSaved).toHaveBeenCalledWith(A_STUDENT)
})

it('says what is wrong beside the field, keeps what was typed, and sends a corrected form under a new key', async () => {
  const sent = fakeServer(refused, { status: 200, body: A_STUDENT })
  const form = useStudentForm(vi.fn())
  form.open(undefined)
  form.fields.note = 'typed before the name'
  await form.save()
  expect(form.fault('name')).toBe('Give the name.')
  expect(form.fault('note')).toBeUndefined()
  expect(form.fields.note).toBe('typed before the name')
  form.fields.name = 'Orla Venn'
  await form.save()
  expect(form.fault('name')).toBeUndefined()
  expect(sent[1]?.headers[IDEMPOTENCY_HEADER]).not.toBe(sent[0]?.headers[IDEMPOTENCY_HEADER])
})

it('sends the instrument that is brought along with who is enrolled, and keeps a doubtful length when told so', async () => {
  const doubtful = {
    status: 422,
    body: {
      status: 422,
      code: 'length_doubtful',
      title: 'No',
      fields: [{ path: 'instrument.length', message: 'Measure again.' }],
    },
  }
  const sent = fakeServer({ status: 200, body: A_STUDENT }, doubtful, { status: 200, body: A_STUDENT })
  const form = useStudentForm(vi.fn())
  const instruments = () => sent.map(({ body }) => (body as { instrument: unknown }).instrument)
  form.open(undefined)
  form.fields.name = 'Wren Quill'
  await form.save()
  form.fields.length = '328'
  expect(form.lengthSays.value).toBe('Of which size? Choose it too.')
  form.fields.sizeId = '1/2'
  expect(form.lengthSays.value).toMatch(/not of a ½/)
  await form.save()
  expect([form.fault('instrument.length'), form.isDoubtful.value]).toEqual(['Measure again.', true])
  await form.keepLength()
  const brought = { sizeId: '1/2', length: '328', on: studioDay() }
  expect(instruments()).toEqual([null, { ...brought, keepAnyway: false }, { ...brought, keepAnyway: true }])
})

it('sends an enrolment again under the same key when nobody answered: enrolled once', async () => {
  vi.useFakeTimers()
  const sent = fakeServer(undefined, { status: 200, body: A_STUDENT })
  const onSaved = vi.fn()
  const form = useStudentForm(onSaved)
  form.open(undefined)
  form.fields.name = 'Orla Venn'
  const saved = form.save()
  await vi.advanceTimersByTimeAsync(100)
  expect([form.busy.value, form.fields.name]).toEqual([true, 'Orla Venn'])
  await vi.runAllTimersAsync()
  await saved
  expect(sent[1]?.headers[IDEMPOTENCY_HEADER]).toBe(sent[0]?.headers[IDEMPOTENCY_HEADER])
  expect(onSaved).toHaveBeenCalledTimes(1)
})

it('takes over what only somebody else changed, and lets the teacher choose where both did', async () => {
  const theirs = { ...A_STUDENT, version: 4, name: 'Orla Venn-Marsh', note: 'theirs' }
  const conflict = {
    status: 409,
    body: { status: 409, code: 'changed_meanwhile', title: 'No', data: theirs },
  }
  const sent = fakeServer(conflict, { status: 200, body: theirs })
  const form = useStudentForm(vi.fn())
  form.open(A_STUDENT)
  form.fields.note = 'mine'
  await form.save()
  // The name was not touched here: theirs is no guess.
  expect(form.fields.name).toBe('Orla Venn-Marsh')
  expect(form.differences.value).toEqual([
    { field: 'note', mine: 'mine', theirs: 'theirs', chosen: undefined },
  ])
  expect([form.fields.note, form.isDecided.value]).toEqual(['mine', false])
  form.choose('note', 'theirs')
  expect([form.fields.note, form.isDecided.value]).toEqual(['theirs', true])
  form.choose('note', 'mine')
  await form.save()
  expect(sent[1]?.body).toMatchObject({ version: 4, note: 'mine', name: 'Orla Venn-Marsh' })

  form.open(A_STUDENT)
  fakeServer(conflict)
  await form.save()
  form.takeTheirs()
  expect(form.fields.name).toBe('Orla Venn-Marsh')
  expect([form.theirs.value, form.differences.value]).toEqual([undefined, []])
})

it('compares a third save with the second, not with what was opened', async () => {
  const saved = (version: number, note: string) => ({
    status: 409,
    body: { status: 409, code: 'changed_meanwhile', title: 'No', data: { ...A_STUDENT, version, note } },
  })
  fakeServer(saved(4, 'second'), saved(5, 'third'))
  const form = useStudentForm(vi.fn())
  form.open(A_STUDENT)
  form.fields.name = 'Mine'
  await form.save()
  expect(form.fields.note).toBe('second')
  await form.save()
  expect([form.fields.note, form.fields.name, form.differences.value]).toEqual(['third', 'Mine', []])
})

it('offers the tape schools of the family that is chosen', () => {
  const form = useStudentForm(vi.fn())
  form.open(undefined)
  const ids = () => form.schools.value.map((s) => s.value)
  expect(ids()).toContain('first_and_third')
  form.fields.family = 'bass'
  expect(ids()).toContain('half_and_first')
  expect(ids()).not.toContain('first_and_third')
})

it('asks who allows sound to be kept where the studio keeps it, and says what withdrawing does', async () => {
  const form = useStudentForm(vi.fn())
  form.open(A_STUDENT)
  expect(form.asksConsent.value).toBe(false)
  const given = { on: '2026-11-21', by: 'Mrs Venn, mother' }
  const sent = fakeServer({ status: 200, body: A_STUDENT })
  form.open({ ...A_STUDENT, soundConsent: given })
  expect([form.asksConsent.value, form.withdraws.value]).toEqual([true, false])
  await form.save()
  form.fields.consentBy = ' '
  expect(form.withdraws.value).toBe(true)
  await form.save()
  expect(sent.map((s) => (s.body as { soundConsent: unknown }).soundConsent)).toEqual([given, null])
})

it('lets a student have a tuning system, and keeps one that the list does not name', async () => {
  const sent = fakeServer({ status: 200, body: A_STUDENT })
  const form = useStudentForm(vi.fn())
  form.open({ ...A_STUDENT, system: 'just:F' })
  expect(form.fields.system).toBe('just:F')
  expect(form.systems.value.map((s) => s.value)).toEqual(
    expect.arrayContaining([AS_STUDIO, 'fifths', 'equal', 'just:G', 'just:F']),
  )
  expect(form.systems.value[0]?.label).toBe('As the studio: Ring')
  await form.save()
  form.fields.system = AS_STUDIO
  await form.save()
  expect(sent.map((s) => (s.body as { system: unknown }).system)).toEqual(['just:F', null])
})

it.each(['2O17', '17 or so', '-5', '２０１７'])(
  'does not take the slip %s for no year of birth',
  async (birthYear) => {
    const sent = fakeServer(refused)
    const form = useStudentForm(vi.fn())
    form.open(A_STUDENT)
    form.fields.birthYear = birthYear
    await form.save()
    const sentYear = (sent[0]?.body as { birthYear: unknown }).birthYear
    expect(StudentChange.shape.birthYear.safeParse(sentYear).success).toBe(false)
  },
)
