import type { PitchFrame } from '../pitch'
import type { HeardDoubleStop, HeardNote } from './heard-note'
import { measureNote, type VoicedFrame } from './measure-note'

export interface NoteOptions {
  /** A pitch that leaves its note by more than this is another note. Less than the least half step that is played. */
  readonly stepCents: number
  /** Frames of another pitch that make it a note of its own. */
  readonly stepFrames: number
  /** Shorter than this is no note. */
  readonly shortestS: number
  /** A pitch out of silence that is left within this was the attack of what follows. */
  readonly scratchS: number
  /** A note is over when no pitch is heard for so long. */
  readonly gapS: number
  /** A level that falls and rises by this on one pitch is a new stroke. */
  readonly strokeDb: number
  /** High partials that leap up by this within a moment are a new stroke as well. */
  readonly strikeDb: number
  /** The same where the pitch is lost for a moment, as under a pluck while the string still rings. */
  readonly brokenStrikeDb: number
  /** A level that falls by this below the note's loudest moment is no longer the note, but what the room makes of it. */
  readonly diesDb: number
  /** Echoes of a small room fall by so much. */
  readonly echoDbPerS: number
  /** Two strings that sound together for so long are a double stop. */
  readonly doubleS: number
  /** A note that goes on longer than this is cut, so that memory stays bounded. */
  readonly longestS: number
}

export const NOTE_OPTIONS: NoteOptions = {
  stepCents: 60,
  stepFrames: 3,
  shortestS: 0.07,
  scratchS: 0.1,
  gapS: 0.04,
  strokeDb: 5,
  strikeDb: 7,
  brokenStrikeDb: 4.5,
  diesDb: 26,
  echoDbPerS: 60,
  doubleS: 0.12,
  longestS: 60,
}

/** A pluck is at its loudest within so many frames. */
const RISES_FRAMES = 4
/** What a step, a stroke or an end is looked for in. */
const BEFORE_FRAMES = 12

/**
 * Makes notes of pitch frames, one after the other: a note ends with its pitch, with another pitch, with a new stroke of the
 * bow or a new pluck on the same pitch. Between, double stops.
 */
export class NoteFinder {
  readonly #options: NoteOptions
  /** Frames of the note that sounds. */
  #note: VoicedFrame[] = []
  /** Frames that have left its pitch and may be the next note. */
  #other: VoicedFrame[] = []
  /** All of the last frames, for where a note began. */
  #recent: PitchFrame[] = []
  #begins: HeardNote['begins'] = 'freely'
  #startS: number | undefined
  #silentS = 0
  #isFromSilence = false
  #double: { startS: number; endS: number } | undefined
  #lastS = 0
  /** The note before: how loud it was, and when it ended. */
  #over = { levelDb: -Infinity, atS: 0 }
  readonly doubleStops: HeardDoubleStop[] = []

  constructor(
    private readonly hopS: number,
    options: Partial<NoteOptions> = {},
  ) {
    this.#options = { ...NOTE_OPTIONS, ...options }
  }

  /** The note that sounds now, as far as it can be told; undefined between notes. */
  get sounding(): HeardNote | undefined {
    return this.#measured(this.#note, this.#lastS)
  }

  /** Takes in the next frame; the notes that are over by now. */
  push(frame: PitchFrame): HeardNote[] {
    this.#recent.push(frame)
    if (this.#recent.length > BEFORE_FRAMES) this.#recent.shift()
    this.#lastS = frame.atS
    this.#hearDouble(frame)
    const voiced = this.#voiced(frame)
    return voiced ? this.#goOn(voiced, frame.brightDb) : this.#fallSilent(frame)
  }

  /** The note that still sounded at the end. */
  end(): HeardNote[] {
    this.#closeDouble()
    return this.#close(this.#lastS + this.hopS / 2)
  }

  #voiced({
    atS,
    frequencyHz,
    sigmaCents,
    confidence,
    levelDb,
    brightDb,
    stiffness,
  }: PitchFrame): VoicedFrame | undefined {
    if (frequencyHz === null) return undefined
    const brightnessDb = brightDb - levelDb
    return {
      atS,
      cents: centsAbove440(frequencyHz),
      sigmaCents,
      confidence,
      levelDb,
      brightnessDb,
      stiffness,
    }
  }

  #hearDouble({ atS, otherHz }: PitchFrame): void {
    if (otherHz === null) {
      if (this.#double && atS - this.#double.endS > 0.05) this.#closeDouble()
      return
    }
    if (this.#double) this.#double.endS = atS
    else this.#double = { startS: atS, endS: atS }
  }

  #closeDouble(): void {
    const double = this.#double
    this.#double = undefined
    if (double && double.endS - double.startS >= this.#options.doubleS) this.doubleStops.push(double)
  }

  #fallSilent(frame: PitchFrame): HeardNote[] {
    this.#silentS += this.hopS
    if (this.#note.length === 0 || this.#silentS < this.#options.gapS) return []
    return this.#close(frame.atS - this.#silentS + this.hopS / 2)
  }

  #goOn(frame: VoicedFrame, brightDb: number): HeardNote[] {
    this.#silentS = 0
    const { stepCents, stepFrames, longestS, diesDb } = this.#options
    if (this.#note.length === 0) {
      if (frame.levelDb < this.#echoDb(frame.atS)) return []
      this.#open([frame], 'freely')
      this.#isFromSilence = true
      return []
    }
    const loudest = this.#loudest()
    if (frame.levelDb < loudest - diesDb) return this.#close(frame.atS)
    if (Math.abs(frame.cents - this.#reference()) > stepCents) {
      this.#other.push(frame)
      const last = this.#other.slice(-stepFrames)
      const spread = Math.max(...last.map((f) => f.cents)) - Math.min(...last.map((f) => f.cents))
      if (last.length < stepFrames || spread > stepCents * 0.6) {
        if (this.#other.length > BEFORE_FRAMES) this.#other.shift()
        return []
      }
      const from = last[0]!.atS - this.hopS / 2
      const scratch = this.#scratchStart(from)
      const done = scratch === undefined ? this.#close(from) : []
      this.#open(last, 'freely', scratch ?? from)
      this.#isFromSilence = scratch !== undefined
      return done
    }
    this.#other = []
    const stroke = this.#strokeAt(frame, brightDb)
    if (stroke !== undefined) return this.#strike(stroke, frame)
    this.#note.push(frame)
    if (frame.atS - this.#note[0]!.atS < longestS) return []
    const done = this.#close(frame.atS)
    this.#open([frame], 'again', frame.atS)
    return done
  }

  /** Where the note began whose first moment was no pitch but the scratch or tick of its attack, if that is what it was. */
  #scratchStart(endS: number): number | undefined {
    if (!this.#isFromSilence) return undefined
    const startS = this.#startS ?? attackOf(this.#note, this.hopS)
    return endS - startS < this.#options.scratchS ? startS : undefined
  }

  /** A new stroke began at `atS`: what came after it belongs to the next note. */
  #strike(atS: number, frame: VoicedFrame): HeardNote[] {
    const after = this.#note.filter((f) => f.atS >= atS)
    this.#note = this.#note.filter((f) => f.atS < atS)
    const done = this.#close(atS)
    this.#open([...after, frame], 'again', atS)
    return done
  }

  /** When the level rose after a fall, if it just did. */
  #strokeAt(frame: VoicedFrame, brightDb: number): number | undefined {
    const { strokeDb, shortestS } = this.#options
    const start = this.#startS ?? this.#note[0]!.atS
    const since = this.#recent.filter((f) => f.atS > start + shortestS && f.atS < frame.atS)
    if (since.length < 3) return undefined
    const struck = this.#struckAt(since, brightDb)
    if (struck !== undefined) return struck
    let low = since.length - 1
    for (let i = since.length - 1; i >= 0; i--) if (since[i]!.levelDb < since[low]!.levelDb) low = i
    const lowest = since[low]!
    if (frame.levelDb - lowest.levelDb < strokeDb) return undefined
    // The bow slows before it turns; a plucked string has been dying since it was struck, and rises at once.
    const before = Math.max(...since.slice(0, low + 1).map((f) => f.levelDb))
    const rose = since.length - low
    if (before - lowest.levelDb < strokeDb && rose > RISES_FRAMES) return undefined
    return lowest.atS + this.hopS / 2
  }

  /** When the high partials leapt up, as they do under a finger or bow that strikes, while the whole hardly grows louder. */
  #struckAt(since: readonly PitchFrame[], brightDb: number): number | undefined {
    const last = since.slice(-RISES_FRAMES)
    const low = last.reduce((a, b) => (b.brightDb <= a.brightDb ? b : a))
    const { strikeDb, brokenStrikeDb, stepCents } = this.#options
    const reference = this.#reference()
    const isBroken = last.some(
      ({ frequencyHz: hz }) => hz === null || Math.abs(centsAbove440(hz) - reference) > stepCents,
    )
    const leaps = brightDb - low.brightDb > (isBroken ? brokenStrikeDb : strikeDb)
    return leaps ? low.atS + this.hopS / 2 : undefined
  }

  #loudest(): number {
    let loudest = -Infinity
    for (const { levelDb } of this.#note) if (levelDb > loudest) loudest = levelDb
    return loudest
  }

  /** What sounds below this is what the room makes of the note before. */
  #echoDb(atS: number): number {
    const { levelDb, atS: endS } = this.#over
    return levelDb - this.#options.diesDb + 6 - this.#options.echoDbPerS * (atS - endS)
  }

  /** Median pitch of the last frames of the note. */
  #reference(): number {
    const last = this.#note.slice(-7).map((f) => f.cents)
    last.sort((a, b) => a - b)
    return last[Math.floor(last.length / 2)]!
  }

  #open(frames: VoicedFrame[], begins: HeardNote['begins'], startS?: number): void {
    this.#note = frames
    this.#isFromSilence = false
    this.#other = []
    this.#begins = begins
    this.#startS = startS ?? this.#attackAt(frames[0]!)
  }

  /** Where the level rises before a first frame with a pitch; a frame hears half its stretch ahead. */
  #attackAt(first: VoicedFrame): number | undefined {
    const before = this.#recent.slice(0, -1)
    const quiet = before.length > 0 ? Math.min(...before.map((f) => f.levelDb)) : -Infinity
    return first.levelDb - quiet > 3 && before.length > 0 ? undefined : Math.max(0, first.atS - this.hopS / 2)
  }

  #close(endS: number): HeardNote[] {
    const measured = this.#measured(this.#note, endS)
    if (measured) this.#over = { levelDb: measured.levelDb, atS: endS }
    this.#note = []
    this.#other = []
    this.#startS = undefined
    return measured ? [measured] : []
  }

  #measured(frames: readonly VoicedFrame[], endS: number): HeardNote | undefined {
    const first = frames[0]
    if (!first) return undefined
    const startS = this.#startS ?? attackOf(frames, this.hopS)
    if (endS - startS < this.#options.shortestS) return undefined
    return measureNote(frames, { startS, endS, begins: this.#begins, hopS: this.hopS })
  }
}

function centsAbove440(hz: number): number {
  return 1200 * Math.log2(hz / 440)
}

/** How far below its loudest moment a note out of silence begins. */
const ATTACK_DB = 14

/** A note out of silence begins where its level has come to a fifth of what it is a moment later. */
function attackOf(frames: readonly VoicedFrame[], hopS: number): number {
  const soon = frames.slice(0, 10)
  const loudest = Math.max(...soon.map((f) => f.levelDb))
  const risen = soon.find((f) => f.levelDb > loudest - ATTACK_DB) ?? soon[0]!
  return Math.max(0, risen.atS - hopS / 2)
}
