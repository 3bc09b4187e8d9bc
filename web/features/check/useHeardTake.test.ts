import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, shallowRef } from 'vue'
import {
  exerciseOf,
  judgeTake,
  mannerOf,
  perform,
  record,
  seededSource,
  shapeExercise,
  shapeOf,
  playedNotes,
  writeWav,
  placementContext,
  type HandFaults,
  type Landing,
  type Stringing,
} from '#core'
import { shaped, strung } from '../../../core/testing'
import { listeningDesk } from '../../listen/listening-desk'
import type { ListenOrder, ListenReport } from '../../listen/messages'
import type { GoneReason, SoundSource } from '../../listen/sources'
import type { ListenParts } from '../../listen/useListening'
import { useDrafts } from '../../stores/drafts'
import { freshStores, signedIn } from '../../testing'
import { trackNotes } from '../../charts/track-notes'
import { useHeardTake } from './useHeardTake'

const RATE = 22_050
const violin = strung('violin', 328)
const onA = shaped('violin')

function playing(faults: Partial<HandFaults>, exercise = onA, strings: Stringing = violin) {
  const line = { ...exercise, notes: playedNotes(exercise) }
  const performance = perform(
    seededSource(5),
    strings,
    line,
    mannerOf('trained', { wobbleCents: 0, ...faults }),
  )
  return { performance, sound: record(seededSource(6), performance, { sampleRateHz: RATE }) }
}

/** A port into which a test puts sound, as the audio thread would. */
function openSource() {
  const port = { onmessage: null as ((event: { data: Float32Array }) => void) | null }
  const close = vi.fn()
  const source: SoundSource = { sampleRateHz: RATE, port: port as unknown as MessagePort, close }
  return {
    source,
    close,
    feed(sound: Float32Array) {
      for (let at = 0; at < sound.length; at += 512) port.onmessage?.({ data: sound.slice(at, at + 512) })
    },
  }
}

function open(parts: Partial<ListenParts> = {}) {
  const microphone = openSource()
  const gone: ((reason: GoneReason) => void)[] = []
  const all: ListenParts = {
    // The listening itself is the real one; only the thread it runs on is this one.
    newWorker() {
      const worker: ReturnType<ListenParts['newWorker']> = {
        onmessage: null,
        onerror: null,
        postMessage: (order: ListenOrder) => desk(order),
        terminate: () => (worker.onmessage = null),
      }
      const desk = listeningDesk((report: ListenReport) =>
        worker.onmessage?.({ data: report } as MessageEvent<ListenReport>),
      )
      return worker
    },
    openMicrophone: (_, { onGone }) => (gone.push(onGone), Promise.resolve(microphone.source)),
    playAloud: () => Promise.resolve(microphone.source),
    decodeFile: () => Promise.reject(new Error('no such format')),
    ...parts,
  }
  const stringing = shallowRef<Stringing | undefined>(violin)
  const exercise = shallowRef(onA)
  const sheet = ref('orla A4 first')
  const heard = effectScope().run(() =>
    useHeardTake({ stringing, exercise, improvised: exercise, sheet }, all),
  )!
  return { heard, microphone, sheet, exercise, lose: (reason: GoneReason) => gone.at(-1)?.(reason) }
}
const SILENCE = new Float32Array(4 * RATE)

beforeEach(() => {
  localStorage.clear()
  freshStores()
  signedIn()
})

describe('a take that is listened to', () => {
  it('begins with the first note, shows each finger while it sounds, ends by itself and is a draft', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    expect(heard.phase.value).toBe('waiting')
    const { performance, sound } = playing({ scatterCents: 0, handOffsetMm: 3 })
    const upTo = (index: number) => Math.round((performance.notes[index]!.startS + 0.3) * RATE)
    microphone.feed(sound.subarray(0, upTo(2)))
    expect(heard.phase.value).toBe('playing')
    expect(heard.landings.value.map((l) => l.finger)).toEqual([0, 1, 2])
    microphone.feed(sound.subarray(upTo(2)))
    microphone.feed(SILENCE)
    expect(heard.phase.value).toBe('off')
    expect(microphone.close).toHaveBeenCalled()

    const { landings } = heard
    expect(landings.value.map((l) => l.finger)).toEqual([0, 1, 2, 3, 4, 3, 2, 1, 0])
    landings.value.forEach((landing, i) => {
      const played = performance.notes[i]!
      // Within the two cents that the ear is held to.
      expect(Math.abs(landing.cents - played.landingCents)).toBeLessThan(2)
      expect(Math.abs(landing.heard!.settledCents - played.settledCents)).toBeLessThan(2)
      // What is told beside the landings needs it, also once the take is a draft.
      expect(landing.heard).toMatchObject({
        wobbleCents: expect.any(Number) as unknown,
        brightnessDb: expect.any(Number) as unknown,
      })
    })
    const verdict = judgeTake({
      stringing: violin,
      exercise: onA,
      landings: landings.value,
      toleranceCents: 10,
    })
    expect(verdict).toMatchObject({ outcome: 'explained', findings: [{ code: 'whole_hand' }] })
    // The sound is in memory, from half a second before the first note, and nowhere else.
    const { samples, sampleRateHz } = heard.sound.value!
    expect(sampleRateHz).toBe(RATE)
    expect(samples.length / RATE).toBeGreaterThan(performance.notes.at(-1)!.endS - 0.1)
    expect(JSON.stringify(localStorage).length).toBeLessThan(20_000)
    await nextTick()
    // A reload later it is there still, with its track.
    const again = open().heard
    expect(again.sound.value).toBeUndefined()
    expect(again.draft.value).toEqual(heard.draft.value)
    expect(again.landings.value).toEqual(landings.value)
    const notes = trackNotes(violin, again.track.value!, again.landings.value)
    for (const { moments, landingCents, settledCents } of notes.slice(1, -1)) {
      const middle = moments[Math.floor(moments.length / 2)]![1]
      expect(Math.abs(middle - (landingCents + settledCents) / 2)).toBeLessThan(12)
    }
  })

  it('judges a hand on a string that is out of tune by that string, and draws it so', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    const { sound } = playing({ scatterCents: 0, stringCents: -20, repairs: 0 })
    microphone.feed(sound)
    microphone.feed(SILENCE)
    const [lowest, first] = heard.landings.value
    // The attack of an open string moves it by part of a cent.
    expect(Math.abs(lowest!.cents + 20)).toBeLessThan(1)
    expect(Math.abs(first!.cents)).toBeLessThan(2)
    const notes = trackNotes(violin, heard.track.value!, heard.landings.value)
    expect(Math.abs(notes[1]!.moments[10]![1])).toBeLessThan(6)
    expect(notes[0]!.moments[10]![1]).toBeLessThan(-15)
  })

  it('of another exercise says so and leaves no draft; of silence as well', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    const family = violin.family
    // Dull thirds on the lowest string are no first position on A.
    const other = shapeExercise(family.tuning, 0, shapeOf(family, family.shapes.at(-1)!.id)!)
    microphone.feed(playing({}, other).sound)
    microphone.feed(SILENCE)
    expect(heard.said.value).toContain('fits this exercise')
    expect(heard.draft.value).toBeUndefined()

    await heard.hear(new Blob([writeWav(SILENCE, RATE)]))
    await vi.waitFor(() => expect(heard.said.value).toContain('No note was heard'))
    expect(heard.draft.value).toBeUndefined()

    // A take that was heard before is not lost to one that is none.
    await heard.listen()
    microphone.feed(playing({}).sound)
    microphone.feed(SILENCE)
    const { value: before } = heard.draft
    expect(before?.notes).toHaveLength(9)
    await heard.listen()
    microphone.feed(playing({}, other).sound)
    microphone.feed(SILENCE)
    expect(heard.said.value).toContain('fits this exercise')
    expect(heard.draft.value).toEqual(before)
  })

  it('says what was not heard and left out, and says it after a reload as well', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    const notes = onA.notes.filter(({ finger }) => finger !== 1)
    microphone.feed(playing({ scatterCents: 0 }, { ...onA, notes }).sound)
    microphone.feed(SILENCE)
    expect(heard.said.value).toContain('Not heard: B4')
    await nextTick()
    const again = open().heard
    expect(again.said.value).toBe(heard.said.value)
  })

  const scale = (() => {
    const made = exerciseOf(placementContext(violin.family, violin.tuning), {
      kind: 'scale',
      keyId: 'D:major',
      octaves: 1,
      openStrings: 'prefer',
    })
    if (!made.ok) throw new Error(made.code)
    return made.exercise
  })()
  const places = (landings: readonly Landing[]) =>
    landings.map((l) => `${l.stringIndex}.${l.finger}`).join(' ')

  it('over several strings is laid against its line, each note on its string, and is a draft by the notes’ numbers', async () => {
    const { heard, microphone, sheet, exercise } = open()
    sheet.value = 'orla scale D:major'
    exercise.value = scale
    await nextTick()
    await heard.listen()
    microphone.feed(playing({ scatterCents: 0 }, scale).sound)
    microphone.feed(SILENCE)
    expect(places(heard.landings.value)).toBe('1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3 2.2 2.1 2.0 1.3 1.2 1.1 1.0')
    const { notes } = heard.draft.value!
    expect(notes.map(({ finger, index }) => scale.notes[index!]!.finger === finger)).not.toContain(false)
    const verdict = judgeTake({
      stringing: violin,
      exercise: heard.line.value,
      landings: heard.landings.value,
      toleranceCents: 10,
    })
    expect(verdict).toMatchObject({ outcome: 'in_tune' })
  })

  it('without an exercise finds its own places, keeps them with the draft and shows them again', async () => {
    const { heard, microphone, sheet, exercise } = open()
    sheet.value = 'orla free'
    exercise.value = { name: { kind: 'free' }, notes: [] }
    await nextTick()
    await heard.listen()
    microphone.feed(playing({ scatterCents: 3 }, scale).sound)
    expect(places(heard.line.value.notes as Landing[])).toBe('1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3')
    microphone.feed(SILENCE)
    const before = places(heard.landings.value)
    expect(before).toBe('1.0 1.1 1.2 1.3 2.0 2.1 2.2 2.3 2.2 2.1 2.0 1.3 1.2 1.1 1.0')
    await nextTick()
    const again = open()
    again.sheet.value = 'orla free'
    again.exercise.value = { name: { kind: 'free' }, notes: [] }
    expect(places(again.heard.landings.value)).toBe(before)
    expect(again.heard.line.value.notes).toHaveLength(8)
    expect(again.heard.said.value).toBe('')
  })

  it('given up before the first note is none, ended in the middle is what was played', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    microphone.feed(SILENCE.subarray(0, RATE))
    heard.stop()
    expect(heard.phase.value).toBe('off')
    expect(heard.draft.value).toBeUndefined()
    await heard.listen()
    const { performance, sound } = playing({})
    microphone.feed(sound.subarray(0, Math.round((performance.notes[3]!.startS + 0.4) * RATE)))
    heard.stop()
    expect(heard.landings.value.map((l) => l.finger)).toEqual([0, 1, 2, 3])
  })

  it('stays with the string it was played on, whatever is chosen next', async () => {
    const { heard, microphone, sheet, exercise } = open()
    await heard.listen()
    const { performance, sound } = playing({})
    microphone.feed(sound.subarray(0, Math.round((performance.notes[3]!.startS + 0.4) * RATE)))
    sheet.value = 'orla D4 first'
    exercise.value = shaped('violin', 1)
    await nextTick()
    expect(heard.phase.value).toBe('off')
    expect(heard.draft.value).toBeUndefined()
    sheet.value = 'orla A4 first'
    exercise.value = onA
    expect(heard.landings.value.map((l) => l.finger)).toEqual([0, 1, 2, 3])
    // Its sound is not offered beside another string’s notes.
    expect(heard.sound.value).toBeUndefined()
    expect(heard.said.value).toBe('')
  })

  it('that a closed lid cuts off has lost the note that sounded, and no more', async () => {
    const { heard, microphone } = open()
    await heard.listen()
    const { performance, sound } = playing({})
    microphone.feed(sound.subarray(0, Math.round((performance.notes[3]!.startS + 0.4) * RATE)))
    await nextTick()
    // Nobody says that it is over; the next page finds it.
    expect(open().heard.draft.value?.notes.map(({ finger }) => finger)).toEqual([0, 1, 2])
  })

  it.each([
    ['unplugged', 'unplugged'],
    ['silenced', 'put aside'],
    ['rate', 'another rate'],
  ] as const)('keeps what was heard when the microphone is lost (%s), and says so', async (reason, words) => {
    const { heard, microphone, lose } = open()
    await heard.listen()
    const { performance, sound } = playing({})
    microphone.feed(sound.subarray(0, Math.round((performance.notes[4]!.startS + 0.4) * RATE)))
    lose(reason)
    expect(heard.fault.value).toContain(words)
    expect(heard.draft.value?.notes).toHaveLength(5)
  })

  it.each([
    ['NotAllowedError', 'Allow the microphone'],
    ['NotFoundError', 'There is no microphone'],
    ['NotReadableError', 'Another program holds'],
  ])('says what to do when the browser answers %s', async (name, advice) => {
    const { heard } = open({ openMicrophone: () => Promise.reject(new DOMException('no', name)) })
    await heard.listen()
    expect(heard.phase.value).toBe('off')
    expect(heard.fault.value).toContain(advice)
  })

  it('that is not kept and played over, or cleared, has a way back, after a reload too', async () => {
    const { heard, microphone, sheet } = open()
    const played = async (handOffsetMm: number) => {
      await heard.listen()
      microphone.feed(playing({ handOffsetMm }).sound)
      microphone.feed(SILENCE)
      return heard.draft.value!.notes
    }
    const [first, second] = [await played(3), await played(-3)]
    expect(second).not.toEqual(first)
    await nextTick()
    freshStores()
    signedIn()
    const again = open().heard
    const drafts = useDrafts()
    const back = () => (drafts.bringBack(sheet.value), again.draft.value?.notes)
    expect(drafts.hasAside(sheet.value)).toBe(true)
    expect([back(), back(), back()]).toEqual([first, second, first])
    drafts.setAside(sheet.value)
    drafts.clear(sheet.value)
    expect(again.draft.value).toBeUndefined()
    expect(back()).toEqual(first)
    // It is not there for ever: for a day.
    drafts.clear(sheet.value)
    const begun = Date.now()
    drafts.type(sheet.value, '1', '12')
    drafts.setAside(sheet.value)
    drafts.clear(sheet.value)
    const hasAfter = (hours: number) => {
      vi.useFakeTimers({ now: begun + hours * 3600_000, toFake: ['Date'] })
      const has = drafts.hasAside(sheet.value)
      vi.useRealTimers()
      return has
    }
    expect([hasAfter(23), hasAfter(25)]).toEqual([true, false])
    // Of the last five sheets alone.
    for (const other of ['b', 'c', 'd', 'e', 'f']) {
      expect([other, drafts.hasAside(sheet.value)]).toEqual([other, true])
      drafts.type(other, '1', '3')
      drafts.setAside(other)
      drafts.clear(other)
    }
    expect([drafts.hasAside(sheet.value), drafts.hasAside('b')]).toEqual([false, true])
  })

  it('of a recording is the same as live; a file that is no sound, or two hours of it, is refused', async () => {
    const { performance, sound } = playing({ scatterCents: 3 })
    const { heard } = open()
    await heard.hear(new Blob([writeWav(sound, RATE, 'float32')]))
    await vi.waitFor(() => expect(heard.draft.value).toBeDefined())
    expect(heard.draft.value!.source).toBe('recording')
    // As it was recorded: where consent lets sound be kept, a file's is kept like the microphone's.
    expect(heard.sound.value?.sampleRateHz).toBe(RATE)
    expect([...heard.sound.value!.samples.subarray(0, 999)]).toEqual([...sound.subarray(0, 999)])
    expect(heard.sound.value!.samples).toHaveLength(sound.length)
    heard.landings.value.forEach((l, i) =>
      expect(Math.abs(l.cents - performance.notes[i]!.landingCents)).toBeLessThan(2),
    )

    await heard.hear(new Blob(['a letter to the teacher']))
    expect(heard.fault.value).toContain('no sound that can be read')
    await heard.hear(new Blob(['RIFFxxxxWAVE and then nothing of the kind']))
    await vi.waitFor(() => expect(heard.fault.value).toContain('no sound that can be read'))
    // Two hours at eight thousand samples a second, eight bits each.
    const long = writeWav(new Float32Array(8000 * 7200), 8000, 'int8')
    await heard.hear(new Blob([long]))
    await vi.waitFor(() => expect(heard.fault.value).toContain('lasts 120 minutes'))
  })

  it('of another format is heard by the browser’s decoder, compressed WAV too; what is too large for it is not', async () => {
    const { sound } = playing({})
    const decodeFile = vi.fn(() => Promise.resolve({ samples: sound.slice(), sampleRateHz: RATE }))
    const { heard } = open({ decodeFile })
    for (const file of ['ID3 and a melody', 'RIFFxxxxWAVE in a code of its own']) {
      await heard.hear(new Blob([file]))
      await vi.waitFor(() => expect(heard.phase.value).toBe('off'))
      expect(heard.fault.value).toBe('')
      expect(heard.draft.value?.notes).toHaveLength(9)
    }
    expect(decodeFile).toHaveBeenCalledTimes(2)
    await heard.hear(new Blob(['x'.repeat(60_000_001)]))
    expect(heard.fault.value).toContain('too large')
    expect(heard.draft.value?.notes).toHaveLength(9)
    expect(decodeFile).toHaveBeenCalledTimes(2)
  })

  it('of a simulated student is played aloud and heard', async () => {
    let sung: Float32Array | undefined
    const aloud = openSource()
    const { heard } = open({
      playAloud(samples) {
        sung = samples
        return Promise.resolve({ ...aloud.source, sampleRateHz: 44_100 })
      },
    })
    heard.play('trained', { frameErrorMm: -6 }, 7)
    await vi.waitFor(() => expect(heard.phase.value).toBe('waiting'))
    aloud.feed(sung!)
    aloud.feed(SILENCE)
    expect(heard.draft.value?.source).toBe('simulated')
    expect(
      judgeTake({ stringing: violin, exercise: onA, landings: heard.landings.value, toleranceCents: 10 }),
    ).toMatchObject({ findings: [{ code: 'frame' }] })
  })
})
