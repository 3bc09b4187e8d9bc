import type { PitchFrame } from '../pitch'
import type { HeardDoubleStop, HeardNote } from './heard-note'
import { measureNote } from './measure-note'
import { centsOf, Phrase, type NotePart, type PhraseOptions } from './phrase'
import { Plateaus } from './plateaus'
import { isStroke, STROKE_AHEAD } from './strokes'
import type { VoicedFrame } from './voiced-frame'

export interface NoteOptions extends PhraseOptions {
  /** Shorter than this is no note. */
  readonly shortestS: number
  /** Without a pitch and with the level down for so long, a note is over. */
  readonly gapS: number
  /** By how much the level is down then. */
  readonly gapDb: number
  /** Without a pitch for so long it is over however loud it is. */
  readonly bridgeS: number
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
  stepCents: 42,
  shortestS: 0.07,
  scratchS: 0.1,
  risingS: 0.17,
  gapS: 0.045,
  gapDb: 15,
  bridgeS: 0.17,
  diesDb: 26,
  echoDbPerS: 60,
  doubleS: 0.12,
  longestS: 60,
}

/** What is loud is asked of the last second. */
const LOUD_S = 1
/** Frames before a first pitch that tell whether the level rises there. */
const BEFORE_FRAMES = 12
/** Frames at the edge of a note that hear the one before as well. */
const EDGE_FRAMES = 4
/** An echo is softer than its note by so much, has its pitch, and does not grow. */
const ECHO_SOFTER_DB = 6
const ECHO_CENTS = 70
const LONGEST_ECHO_S = 1
const RISES_AGAIN_DB = 6
/** A scratch before the pitch is so little softer at most; where all was hardly softer than that, what had risen by most of it. */
const SCRATCHES_DB = 8
const RISEN_PART = 0.7
/** A level that rises by less before the first pitch rises by chance. */
const RISES_BEFORE_DB = 3
/** Frames between two looks at the note that sounds. */
const LOOKED_EVERY = 3
/** Frames between two looks at what can be told. */
const ASKED_EVERY = 6
/** A note’s attack has a fall and rise of its own, and is over by now. */
const ATTACK_S = 0.14
interface Look {
  readonly pending: readonly HeardNote[]
  readonly sounding: HeardNote | undefined
}

/**
 * Makes notes of pitch frames. A phrase is what sounds without a pause; in it a note ends with another pitch that stays
 * ({@link Plateaus}) or with a new stroke on the same one ({@link isStroke}), and never by its level alone. A note is told when what
 * follows it has sounded for {@link STROKE_AHEAD} frames, or at the phrase's end. Between, double stops.
 */
export class NoteFinder {
  readonly #options: NoteOptions
  /** The phrase that sounds, from the note that is not told yet. */
  #frames: PitchFrame[] = []
  #plateaus: Plateaus
  /** The last frames before the phrase. */
  #before: PitchFrame[] = []
  #begins: HeardNote['begins'] = 'freely'
  /** Where the first note of the phrase began, if that is known. */
  #startS: number | undefined
  #isFromSilence = false
  /** Frames at the end of the phrase without a pitch, or too low to be the note. */
  #hole = 0
  #holeDb = Infinity
  #double: { startS: number; endS: number } | undefined
  #lastS = 0
  /** The note before: how loud it was, when it ended, its pitch. */
  #over = { levelDb: -Infinity, atS: -Infinity, cents: NaN }
  /** The lowest level since the last phrase. */
  #restDb = Infinity
  #looked: Look | undefined
  #sinceLook = 0
  readonly doubleStops: HeardDoubleStop[] = []

  constructor(
    private readonly hopS: number,
    options: Partial<NoteOptions> = {},
  ) {
    this.#options = { ...NOTE_OPTIONS, ...options }
    this.#plateaus = new Plateaus(hopS)
  }

  /** The note that sounds now, as far as it can be told; undefined between notes. */
  get sounding(): HeardNote | undefined {
    return this.#look().sounding
  }

  /** Notes before the one that sounds, as far as they can be told: they are over, and what follows them may still change that. */
  get pending(): readonly HeardNote[] {
    return this.#look().pending
  }

  /** Looked at once in some frames, however often it is asked, and whenever a note was told. */
  #look(): Look {
    if (this.#looked) return this.#looked
    const parts = this.#parts()
    const last = parts.at(-1)
    const pending = parts
      .slice(0, -1)
      .flatMap((part, i) => this.#measured(part, i === 0, this.#edgeS(part.to)) ?? [])
    const sounding = last && this.#measured(last, parts.length === 1, this.#lastS)
    this.#sinceLook = 0
    return (this.#looked = { pending, sounding })
  }

  /** Takes in the next frame; the notes that are over by now. */
  push(frame: PitchFrame): HeardNote[] {
    if (++this.#sinceLook >= LOOKED_EVERY) this.#looked = undefined
    this.#lastS = frame.atS
    this.#hearDouble(frame)
    if (this.#frames.length === 0) {
      if (this.#isIn(frame) && this.#isNew(frame)) this.#begin(frame)
      else this.#restDb = Math.min(this.#restDb, frame.levelDb)
      this.#before.push(frame)
      if (this.#before.length > BEFORE_FRAMES) this.#before.shift()
      return []
    }
    this.#append(frame)
    if (this.#isOver()) return this.#endPhrase(frame.atS - this.hopS * (this.#hole - 0.5))
    return this.#tellWhatIsSure()
  }

  /** The note that still sounded at the end. */
  end(): HeardNote[] {
    this.#closeDouble()
    return this.#frames.length === 0 ? [] : this.#endPhrase(this.#lastS + this.hopS / 2)
  }

  #begin(frame: PitchFrame): void {
    this.#begins = 'freely'
    this.#isFromSilence = true
    this.#startS = this.#scratchBefore(frame)
    this.#restart([])
    this.#append(frame)
  }

  #restart(frames: readonly PitchFrame[]): void {
    this.#looked = undefined
    this.#frames = []
    this.#plateaus = new Plateaus(this.hopS)
    this.#hole = 0
    this.#holeDb = Infinity
    for (const frame of frames) this.#append(frame)
  }

  #append(frame: PitchFrame): void {
    const isIn = this.#isIn(frame)
    this.#frames.push(frame)
    this.#hole = isIn ? 0 : this.#hole + 1
    this.#holeDb = isIn ? Infinity : Math.min(this.#holeDb, frame.levelDb)
    this.#plateaus.push(isIn ? centsOf(frame) : null, weightOf(frame))
  }

  /** Whether a frame has a pitch and is loud enough to be the note, and not its echo. */
  #isIn({ frequencyHz, levelDb }: PitchFrame): boolean {
    return frequencyHz !== null && levelDb > this.#loudest() - this.#options.diesDb
  }

  #loudest(): number {
    const from = Math.max(0, this.#frames.length - Math.round(LOUD_S / this.hopS))
    let loudest = -Infinity
    for (let i = from; i < this.#frames.length; i++) loudest = Math.max(loudest, this.#frames[i]!.levelDb)
    return loudest
  }

  #isOver(): boolean {
    const { gapS, gapDb, bridgeS } = this.#options
    const holeS = this.#hole * this.hopS
    return holeS >= bridgeS || (holeS >= gapS && this.#holeDb < this.#loudest() - gapDb)
  }

  #endPhrase(endS: number): HeardNote[] {
    const parts = this.#parts()
    const sure = this.#frames.length - this.#hole
    const notes = parts.flatMap((part, i) => {
      const next = parts[i + 1]
      const cuts = this.#strokesIn(part, sure - 5)
      return this.#cut(part, cuts, i === 0, next ? this.#edgeS(part.to) : endS)
    })
    this.#before = this.#frames.slice(-BEFORE_FRAMES)
    this.#restDb = this.#frames.slice(sure).reduce((least, f) => Math.min(least, f.levelDb), Infinity)
    this.#restart([])
    return notes
  }

  /** The notes whose end has been followed by enough of what came after it; asked for some frames at a time. */
  #tellWhatIsSure(): HeardNote[] {
    const sure = this.#frames.length - 1 - STROKE_AHEAD
    if (sure < 4 || this.#frames.length % ASKED_EVERY !== 0) return []
    const [first, second] = this.#parts()
    const boundary = second && second.from <= sure ? second.from : undefined
    const until = Math.min(boundary ?? Infinity, sure + 1)
    for (let at = Math.max(4, sure - 2 * ASKED_EVERY); at < until; at++)
      if (this.#isStrokeIn(first!, at)) return this.#tellTo(first!, at, 'again')
    if (boundary !== undefined) return this.#tellTo(first!, boundary, 'freely')
    const { longestS } = this.#options
    return this.#frames.length * this.hopS > longestS ? this.#tellTo(first!, sure, 'again') : []
  }

  /** Tells the first note as it is up to frame `to`, and goes on from there. */
  #tellTo(first: NotePart, to: number, begins: HeardNote['begins']): HeardNote[] {
    const end = Math.min(first.to, to)
    const notes = this.#tell({ ...first, to: end }, this.#edgeS(end))
    this.#begins = begins
    this.#startS = this.#edgeS(to)
    this.#isFromSilence = false
    this.#restart(this.#frames.slice(to))
    return notes
  }

  #cut(part: NotePart, cuts: readonly number[], isFirst: boolean, endS: number): HeardNote[] {
    const edges = [part.from, ...cuts, part.to]
    return edges.slice(1).flatMap((to, i) => {
      const from = edges[i]!
      if (i > 0) {
        this.#begins = 'again'
        this.#startS = this.#edgeS(from)
      } else if (!isFirst) {
        this.#begins = 'freely'
        this.#startS = this.#edgeS(from)
      }
      const isLast = i === cuts.length
      return this.#tell({ ...part, from, to }, isLast ? endS : this.#edgeS(to))
    })
  }

  #strokesIn(part: NotePart, before: number): number[] {
    const found: number[] = []
    for (let at = part.from; at < Math.min(part.to, before); at++)
      if (this.#isStrokeIn({ ...part, from: found.at(-1) ?? part.from }, at)) found.push(at)
    return found
  }

  /** A stroke within a note, clear of where it began: an attack has its own fall and rise. */
  #isStrokeIn(part: NotePart, at: number): boolean {
    const clear = Math.round(ATTACK_S / this.hopS)
    if (!(at > part.from + clear && at < part.to - 4)) return false
    // What was before this pitch, and what comes after it, rises and falls by itself.
    return isStroke(this.#frames.slice(part.from + EDGE_FRAMES, part.to), at - part.from - EDGE_FRAMES)
  }

  #edgeS(frame: number): number {
    return this.#frames[frame]!.atS - this.hopS / 2
  }

  /** The notes of the phrase by their pitch. */
  #parts(): NotePart[] {
    if (this.#frames.length === 0) return []
    const told = this.#isFromSilence ? undefined : { cents: this.#over.cents }
    const phrase = new Phrase(this.#frames, this.hopS, this.#options, told)
    // What is all on one plateau has no neighbours to be held against.
    return this.#plateaus.isOne ? [phrase.whole(0, this.#frames.length)] : phrase.notes(this.#plateaus.all())
  }

  #tell(part: NotePart, endS: number): HeardNote[] {
    const measured = this.#measured(part, true, endS)
    if (measured) this.#over = { levelDb: measured.levelDb, atS: endS, cents: part.cents }
    return measured ? [measured] : []
  }

  #measured(part: NotePart, isFirst: boolean, endS: number): HeardNote | undefined {
    const frames = this.#frames.slice(part.from, part.to).flatMap((f) => voiced(f) ?? [])
    if (frames.length < 3) return undefined
    const known = isFirst ? this.#startS : this.#edgeS(part.from)
    const startS = known ?? attackOf(frames, this.hopS)
    if (endS - startS < this.#options.shortestS) return undefined
    return measureNote(frames, {
      startS,
      endS,
      begins: isFirst ? this.#begins : 'freely',
      hopS: this.hopS,
      cents: part.cents,
    })
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

  /** Whether a pitch in a pause is a note, and not what the room makes of the note before: softer, or its own pitch dying away. */
  #isNew(frame: PitchFrame): boolean {
    const { levelDb, atS: endS, cents } = this.#over
    const { diesDb, echoDbPerS } = this.#options
    const sinceS = frame.atS - endS
    if (frame.levelDb < levelDb - diesDb + 6 - echoDbPerS * sinceS) return false
    if (frame.levelDb > levelDb - ECHO_SOFTER_DB) return true
    const off = centsOf(frame) - cents
    const isSame = Math.abs(off - 1200 * Math.round(off / 1200)) < ECHO_CENTS
    return !isSame || sinceS > LONGEST_ECHO_S || frame.levelDb > this.#restDb + RISES_AGAIN_DB
  }

  /**
   * Where a first note begins if not by the rise of its own pitch: with it, where the level does not rise before it (a frame hears half
   * its stretch ahead); or where the level rose, if it stood about as high for a moment without a pitch: the bow scratched.
   */
  #scratchBefore(first: PitchFrame): number | undefined {
    const before = this.#before.filter(({ atS }) => atS > this.#over.atS)
    const risesDb = before.length > 0 ? first.levelDb - Math.min(...before.map((f) => f.levelDb)) : 0
    if (!(risesDb > RISES_BEFORE_DB)) return Math.max(0, first.atS - this.hopS / 2)
    const softDb = first.levelDb - Math.min(SCRATCHES_DB, RISEN_PART * risesDb)
    const low = before.findLastIndex((f) => f.levelDb < softDb)
    return low + 1 < before.length ? before[low + 1]!.atS - this.hopS / 2 : undefined
  }
}

function voiced(frame: PitchFrame): VoicedFrame | undefined {
  if (frame.frequencyHz === null) return undefined
  const { atS, sigmaCents, confidence, levelDb, brightDb, stiffness } = frame
  return {
    atS,
    cents: centsOf(frame),
    sigmaCents,
    confidence,
    levelDb,
    brightnessDb: brightDb - levelDb,
    stiffness,
  }
}

/** What little of the sound belongs to is little known. */
function weightOf({ confidence }: PitchFrame): number {
  return Math.max(0.2, Math.min(1, (confidence - 0.4) / 0.4))
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
