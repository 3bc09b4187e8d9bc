import { HALF_BAND_REACH, HalfBand, WIDE_REACH } from './half-band'
import {
  FIT_OPTIONS,
  HarmonicFitter,
  STIFF_PARTIALS,
  type FitOptions,
  type HarmonicFit,
} from './harmonic-fit'
import { PeriodFinder } from './period'
import { Samples } from './samples'

/** What is heard about one moment. */
export interface PitchFrame {
  /** From the first sample. */
  readonly atS: number
  /** Of partial 1; null where there is no one pitch. */
  readonly frequencyHz: number | null
  /** One standard deviation of the frequency, from the noise beside its partials; Infinity without one. */
  readonly sigmaCents: number
  /** Part of the sound's power that belongs to the pitch, 0 … 1. */
  readonly confidence: number
  /** Root mean square over one hop, dB of full scale. */
  readonly levelDb: number
  /** The same of the sound's slope, in which high partials weigh more: it leaps when a string is struck. */
  readonly brightDb: number
  /** B of a stiff, plucked string; 0 otherwise. */
  readonly stiffness: number
  /** A second note that sounds as loud: a double stop, of which no pitch is told. */
  readonly otherHz: number | null
}

export interface TrackerOptions {
  readonly lowestHz: number
  readonly highestHz: number
  /** Below this part of the power no pitch is told. */
  readonly leastConfidence: number
  /** Frames between two searches for the period while a note goes on. */
  readonly searchEvery: number
  readonly fit: FitOptions
}

export const TRACKER_OPTIONS: TrackerOptions = {
  lowestHz: 29.5,
  highestHz: 3200,
  leastConfidence: 0.6,
  searchEvery: 32,
  fit: FIT_OPTIONS,
}

/** Lowest and highest rate of samples that are listened to, Hz. */
export const SAMPLE_RATES_HZ = { lowest: 8000, highest: 192_000 } as const

/** From one frame to the next, seconds, to the nearest power of two in samples. */
const HOP_S = 512 / 44_100
/** Stretches that are looked at: at least this long, and this many periods where a note is low. */
const SHORTEST_S = 0.0464
const LEAST_PERIODS = 4
/** For notes too low for that many periods: whole thirds of a period that fit in here. */
const LONGEST_S = 0.0884
const SEARCH_S = 0.0929
/** What a glimpse looks at, and how clearly it must repeat itself. */
const GLIMPSE_S = 0.045
const GLIMPSE_CLARITY = 0.9
/** Partials up to here are worth their arithmetic. */
const PARTIALS = 36
const HIGHEST_PARTIAL_HZ = 4600
/** Above this a stiff string has periods enough to be told from few partials. */
const HIGH_STIFF_HZ = 135
/** What moves more slowly than this is a microphone's offset and no sound. */
const OFFSET_HZ = 5
/** Part of a stage's rate that its half-band filter passes whole. */
const PASSED_BAND = 0.42
/** Sound that is kept behind the newest sample, seconds: more than twice the longest stretch that is looked at. */
const KEPT_S = 0.2
/** Silence after which the last frame can be told, seconds: half the longest stretch, and what the filters reach over. */
const AFTER_END_S = 0.065
/** The first stage has at most this rate, Hz: it passes nearly three times {@link HIGHEST_PARTIAL_HZ}. */
const FIRST_RATE_HZ = 32_000
/** Stages below the first, each at half the rate of the one before. */
const SLOWER_STAGES = 2
/** The period is searched in the fastest stage that has no more, Hz: there it is cheap, and 3200 Hz have five samples. */
const SEARCHED_RATE_HZ = 16_500
/** A fit may leave the range that is listened to by this part: as far as a fitted pitch moves from where it was looked for. */
const BEYOND_RANGE = 0.03
/** Partials that a stage must hold at the least, in multiples of the pitch. */
const FEWEST_PARTIALS = 3.2
/** Fainter than this is silence, dB of full scale. */
const SILENCE_DB = -75
/** A series of which all but this part lies in every second (third) partial is one an octave (a twelfth) higher. */
const IDLE_PARTIALS = 0.015
/** The same in noise, as a part of what the series leaves. */
const IDLE_IN_NOISE = 0.15
/** Another period is taken for the first one only where it explains so much more of the sound. */
const BETTER = 0.04
/** What repeats itself less than this is noise, and no string however stiff. */
const REPEATS = 0.45
/** Above this a period is so few samples long that it is known to some percent only. */
const ROUGH_ABOVE_HZ = 900
const ROUGH_RATIOS = [0.978, 1.022]
/** Above this no string's octave below is on the instrument with so weak a first partial. */
const LOWER_BELOW_HZ = 260
/** An octave lower must explain about as much (its stretch is longer), lie about there, and hold this part in the first of its odd partials. */
const LOWER_LOSES = 0.08
const LOWER_NEAR = 0.015
const LOWER_ODD = 0.03
const LOWER_PARTIALS = 8
/** A period that explains so much is only held against the clearest one. */
const CERTAIN = 0.9
/** A pitch is followed without a search while it explains the sound about as well as when it was found. */
const LOSES = 0.07
/** Where high partials grow by so much from frame to frame a string may have been struck anew. */
const LEAPS_DB = 2
/** A sound of two notes: the first leaves something, and that repeats itself as a note does. */
const TWO_NOTES = { firstAtMost: 0.9, clarity: 0.6, apartCents: 90, partOfEach: 0.08 } as const
/**
 * In notes that sound together in tune all but this part lies in their own multiples. A low string whose first partial is weak
 * leaves some hundredths of a percent in its fifth and seventh: recorded cellos, 0.2 % and more.
 */
const IDLE_IN_CHORD = 0.001
/** Ratios of notes that sound together in tune: fifth, fourth, sixths and thirds, and a major triad. */
const CHORDS: readonly (readonly number[])[] = [
  [2, 3],
  [3, 4],
  [3, 5],
  [4, 5],
  [5, 6],
  [5, 8],
  [4, 5, 6],
]

interface Stage {
  readonly samples: Samples
  readonly rateHz: number
  /** Input samples a sample. */
  readonly step: number
}

interface Heard {
  readonly hz: number
  readonly fit: HarmonicFit
  readonly stage: Stage
}

interface Company {
  /** A second note that sounds as loud. */
  readonly otherHz: number | null
}

/**
 * Follows the pitch of one string, block by block. The sound is halved in rate to what the note needs; a period is searched
 * for by autocorrelation, sharpened by a harmonic fit, and followed by the fit alone while it holds. The same frames come out
 * whatever the blocks are; memory is bounded; a frame is there 55 ms after its moment at most.
 *
 * @example
 * const tracker = new PitchTracker(48_000)
 * for (const block of blocks) for (const frame of tracker.push(block)) show(frame)
 * for (const frame of tracker.end()) show(frame)
 */
export class PitchTracker {
  readonly hopSamples: number
  readonly #options: TrackerOptions
  readonly #input: Samples
  readonly #halvings: HalfBand[] = []
  readonly #stages: Stage[] = []
  readonly #fitters: HarmonicFitter[]
  readonly #searched: Stage
  readonly #finder: PeriodFinder
  readonly #searchLength: number
  readonly #glimpser: PeriodFinder
  readonly #glimpseLength: number
  #frame = 0
  #last: (Heard & Company) | undefined
  #sinceSearch = 0
  #searchIn = 2
  #best = 0
  #brightDb = -Infinity
  #offset: number | undefined
  readonly #chunk = new Float64Array(1024)

  /** Throws a RangeError for a rate outside {@link SAMPLE_RATES_HZ}. */
  constructor(
    readonly sampleRateHz: number,
    options: Partial<TrackerOptions> = {},
  ) {
    const { lowest, highest } = SAMPLE_RATES_HZ
    if (!(sampleRateHz >= lowest && sampleRateHz <= highest))
      throw new RangeError(`a sampling rate of ${sampleRateHz} Hz is outside ${lowest} … ${highest} Hz`)
    this.#options = { ...TRACKER_OPTIONS, ...options }
    this.hopSamples = 2 ** Math.round(Math.log2(HOP_S * sampleRateHz))
    this.#input = new Samples(Math.ceil(KEPT_S * sampleRateHz))
    let stage: Stage = { samples: this.#input, rateHz: sampleRateHz, step: 1 }
    while (stage.rateHz > FIRST_RATE_HZ) stage = this.#halve(stage, WIDE_REACH)
    this.#stages.push(stage)
    for (let i = 0; i < SLOWER_STAGES; i++) this.#stages.push(this.#halve(this.#stages.at(-1)!))
    this.#fitters = this.#stages.map(
      ({ rateHz }) => new HarmonicFitter(Math.ceil(SEARCH_S * rateHz) + 4, this.#options.fit),
    )
    this.#searched = this.#stages.find(({ rateHz }) => rateHz <= SEARCHED_RATE_HZ) ?? this.#stages.at(-1)!
    this.#searchLength = 2 * Math.round((SEARCH_S * this.#searched.rateHz) / 2)
    this.#finder = new PeriodFinder(this.#searchLength)
    this.#glimpseLength = 2 * Math.round((GLIMPSE_S * this.#searched.rateHz) / 2)
    this.#glimpser = new PeriodFinder(this.#glimpseLength)
  }

  #halve({ samples, rateHz, step }: Stage, reach = HALF_BAND_REACH): Stage {
    const half = new HalfBand(samples, Math.ceil(KEPT_S * rateHz) + 2 * reach, reach)
    this.#halvings.push(half)
    return { samples: half.output, rateHz: rateHz / 2, step: 2 * step }
  }

  /** Listens on; the frames that can now be told. Throws a RangeError for a sample that is no number. */
  push(block: ArrayLike<number>): PitchFrame[] {
    const follow = Math.min(1, (2 * Math.PI * OFFSET_HZ) / this.sampleRateHz)
    let offset = this.#offset ?? block[0] ?? 0
    const frames: PitchFrame[] = []
    for (let from = 0; from < block.length; from += this.#chunk.length) {
      const count = Math.min(this.#chunk.length, block.length - from)
      const chunk = this.#chunk
      for (let i = 0; i < count; i++) {
        const value = block[from + i]!
        offset += follow * (value - offset)
        chunk[i] = value - offset
      }
      // What is no number stays one in the offset.
      if (!Number.isFinite(offset)) this.#refuse(block, from)
      this.#input.append(chunk, count)
      for (const half of this.#halvings) half.run()
      // Told at once, before what they need is let go.
      while (this.#isReady()) frames.push(this.#tell(this.#frame++ * this.hopSamples))
    }
    this.#offset = offset
    return frames
  }

  /**
   * The pitch of the last moment, Hz, half a stretch sooner than its frame: for the eye of whoever plays, and nothing is judged by
   * it. An octave may be wrong; null where nothing repeats itself, and of notes too low for so short a look.
   */
  glimpse(): number | null {
    const { samples, rateHz } = this.#searched
    const { end } = samples
    const last = samples.view(end - this.#glimpseLength, end)
    let square = 0
    for (const value of last) square += value * value
    if (10 * Math.log10(square / last.length + 1e-12) < SILENCE_DB) return null
    const { highestHz, lowestHz } = this.#options
    const [first] = this.#glimpser.find(last, rateHz / highestHz, rateHz / lowestHz)
    return first && first.clarity >= GLIMPSE_CLARITY ? rateHz / first.period : null
  }

  #refuse(block: ArrayLike<number>, from: number): never {
    let at = from
    while (Number.isFinite(block[at])) at++
    throw new RangeError(`sample ${this.#input.end + at - from} is ${block[at]}, which is no sound`)
  }

  /** The frames up to the last sample, silence taken to follow it. */
  end(): PitchFrame[] {
    const last = this.#input.end
    const frames = this.push(new Float64Array(Math.ceil(AFTER_END_S * this.sampleRateHz)))
    return frames.filter(({ atS }) => atS * this.sampleRateHz < last)
  }

  #isReady(): boolean {
    const at = this.#frame * this.hopSamples
    return this.#stages.every(
      ({ samples, rateHz, step }) =>
        samples.end >= at / step + ((step === this.#searched.step ? SEARCH_S : LONGEST_S) * rateHz) / 2 + 2,
    )
  }

  #tell(at: number): PitchFrame {
    const atS = at / this.sampleRateHz
    const levels = this.#levels(at, this.#last?.hz)
    const none = {
      atS,
      frequencyHz: null,
      sigmaCents: Infinity,
      confidence: 0,
      ...levels,
      stiffness: 0,
      otherHz: null,
    }
    const leaps = levels.brightDb > this.#brightDb + LEAPS_DB
    this.#brightDb = levels.brightDb
    if (leaps) this.#searchIn = 1
    const heard = levels.levelDb < SILENCE_DB ? undefined : this.#hear(at)
    this.#last = heard && heard.fit.explained >= this.#options.leastConfidence ? heard : undefined
    if (!heard) return none
    const { fit, hz, otherHz } = heard
    if (!this.#last || otherHz !== null) return { ...none, confidence: fit.explained, otherHz }
    return {
      atS,
      frequencyHz: hz,
      sigmaCents: fit.relativeSigma * (1200 / Math.LN2),
      confidence: fit.explained,
      ...levels,
      stiffness: fit.stiffness,
      otherHz,
    }
  }

  #hear(at: number): (Heard & Company) | undefined {
    const last = this.#last
    if (last && ++this.#sinceSearch < this.#searchIn) {
      const followed = this.#fit(at, last.hz, last.fit)
      if (followed && followed.fit.explained > this.#best - LOSES && this.#multiple(followed) === 1)
        return {
          ...followed,
          otherHz: last.otherHz === null ? chordIn(followed) : this.#beside(at, followed),
        }
      this.#searchIn = 1
    }
    // What holds is asked about less and less often.
    this.#searchIn = last ? Math.min(2 * this.#searchIn, this.#options.searchEvery) : 2
    this.#sinceSearch = 0
    const found = this.#search(at)
    this.#best = found?.fit.explained ?? 0
    return found && { ...found, otherHz: this.#beside(at, found) }
  }

  #search(at: number): Heard | undefined {
    const { samples, rateHz, step } = this.#searched
    const from = Math.round(at / step) - this.#searchLength / 2
    const { lowestHz, highestHz } = this.#options
    const candidates = this.#finder.find(
      samples.view(from, from + this.#searchLength),
      rateHz / highestHz,
      rateHz / lowestHz,
    )
    const clearest = Math.max(...candidates.map(({ clarity }) => clarity))
    if (clearest < REPEATS) return undefined
    let best: Heard | undefined
    for (const { period, clarity } of candidates) {
      if (best && best.fit.explained > CERTAIN && clarity < clearest) continue
      let heard = this.#fitNear(at, rateHz / period)
      if (!heard) continue
      const times = this.#multiple(heard)
      if (times > 1) heard = this.#fit(at, times * heard.hz) ?? heard
      if (!best || this.#isBetter(at, heard, best)) best = heard
    }
    return best && this.#lower(at, best)
  }

  /** A fit; of high notes, whose period is few samples long and known only roughly, from either side as well where it fails. */
  #fitNear(at: number, hz: number): Heard | undefined {
    let best = this.#fit(at, hz)
    if (hz < ROUGH_ABOVE_HZ) return best
    for (const ratio of ROUGH_RATIOS) {
      if (best && best.fit.explained >= this.#options.leastConfidence) return best
      const heard = this.#fit(at, ratio * hz)
      if (heard && heard.fit.explained > (best?.fit.explained ?? 0)) best = heard
    }
    return best
  }

  /**
   * The same an octave lower, where the partials between say so: a low string with a weak first partial is nearly all in its even
   * ones, and too short a stretch of it is taken for their octave.
   */
  #lower(at: number, heard: Heard): Heard {
    const lower = heard.hz < LOWER_BELOW_HZ ? this.#fit(at, heard.hz / 2) : undefined
    if (!lower || Math.abs(lower.hz / heard.hz - 0.5) > LOWER_NEAR) return heard
    if (lower.fit.explained < heard.fit.explained - LOWER_LOSES) return heard
    const { powers } = lower.fit
    let [odd, all] = [0, 0]
    powers.forEach((power, i) => {
      all += power
      if (i % 2 === 0 && i < LOWER_PARTIALS) odd += power
    })
    return odd > LOWER_ODD * all ? lower : heard
  }

  /** Both held against the same sound: a slower stage has less noise in it. */
  #isBetter(at: number, heard: Heard, than: Heard): boolean {
    if (heard.fit.explained <= than.fit.explained + BETTER) return false
    if (heard.stage === than.stage) return true
    const there = this.#fitOn(this.#stages.indexOf(heard.stage), at, than.hz)
    return !there || heard.fit.explained > there.fit.explained + BETTER
  }

  #fit(at: number, hz: number, before?: HarmonicFit): Heard | undefined {
    const { lowestHz, highestHz } = this.#options
    if (!(hz >= (1 - BEYOND_RANGE) * lowestHz && hz <= (1 + BEYOND_RANGE) * highestHz)) return undefined
    const partials = before && before.stiffness > 0 && hz > HIGH_STIFF_HZ ? STIFF_PARTIALS : PARTIALS
    return this.#fitOn(this.#stageFor(hz, partials), at, hz, before)
  }

  #fitOn(index: number, at: number, hz: number, before?: HarmonicFit): Heard | undefined {
    const stage = this.#stages[index]!
    const seconds = stretchS(hz)
    const half = Math.round((seconds * stage.rateHz) / 2)
    const middle = Math.round(at / stage.step)
    const fit = this.#fitters[index]!.fit(
      stage.samples.view(middle - half, middle + half + 1),
      stage.rateHz / hz,
      before,
    )
    return fit && { hz: (fit.omega * stage.rateHz) / (2 * Math.PI), fit, stage }
  }

  /** The slowest stage that holds the partials a note needs. */
  #stageFor(hz: number, partials: number): number {
    const needed = Math.max(Math.min(partials * hz, HIGHEST_PARTIAL_HZ), FEWEST_PARTIALS * hz)
    for (let i = this.#stages.length - 1; i > 0; i--)
      if (PASSED_BAND * this.#stages[i]!.rateHz >= needed) return i
    return 0
  }

  /** 2 or 3 where all but nothing lies in every second or third partial. */
  #multiple({ fit: { powers, explained } }: Heard): number {
    // Noise lies in idle partials as well.
    const idlePart = Math.max(IDLE_PARTIALS, IDLE_IN_NOISE * (1 - explained))
    let all = 0
    for (const power of powers) all += power
    for (const times of [2, 3]) {
      if (powers.length < times) continue
      let idle = 0
      powers.forEach((power, i) => (idle += (i + 1) % times === 0 ? 0 : power))
      if (idle < idlePart * all) return times
    }
    return 1
  }

  #beside(at: number, heard: Heard): number | null {
    return chordIn(heard) ?? (heard.fit.explained < TWO_NOTES.firstAtMost ? this.#otherNote(at, heard) : null)
  }

  /** The pitch of what the heard note leaves, where that is as much of a note. */
  #otherNote(at: number, { hz }: Heard): number | null {
    const { samples, rateHz, step } = this.#searched
    const from = Math.round(at / step) - this.#searchLength / 2
    const stretch = samples.view(from, from + this.#searchLength)
    const fitter = this.#fitters[this.#stages.indexOf(this.#searched)]!
    if (!fitter.fit(stretch, rateHz / hz)) return null
    const { lowestHz, highestHz } = this.#options
    const rest = fitter.rest(stretch).slice()
    const [other] = this.#finder.find(rest, rateHz / highestHz, rateHz / lowestHz)
    if (!other || other.clarity < TWO_NOTES.clarity) return null
    // What is left of noise repeats itself for a moment; only a note is a series of partials.
    if ((fitter.fit(rest, other.period)?.explained ?? 0) < TWO_NOTES.clarity) return null
    const otherHz = rateHz / other.period
    // Partials that the fit has no room for repeat themselves as the note does, or as its multiples.
    const ratio = otherHz > hz ? otherHz / hz : hz / otherHz
    return Math.abs(1200 * Math.log2(ratio / Math.round(ratio))) > TWO_NOTES.apartCents ? otherHz : null
  }

  /** Over one hop, and over whole periods of a note that is longer than that: a low note does not flicker. */
  #levels(at: number, hz: number | undefined): { levelDb: number; brightDb: number } {
    const { samples, step, rateHz } = this.#searched
    const hop = this.hopSamples / step
    const period = hz === undefined ? 0 : rateHz / hz
    const count = period > 0 ? Math.round(period * Math.ceil(hop / period)) : Math.round(hop)
    const from = Math.round(at / step) - Math.floor(count / 2)
    const stretch = samples.view(from - 1, from + count)
    let power = 0
    let slope = 0
    for (let i = 1; i <= count; i++) {
      power += stretch[i]! ** 2
      slope += (stretch[i]! - stretch[i - 1]!) ** 2
    }
    return { levelDb: decibels(power / count), brightDb: decibels(slope / count) }
  }
}

/**
 * The highest of notes in a simple ratio, which together repeat themselves as one low note would: nearly all power lies in the
 * multiples of a few partials, and none of these alone holds it. Null for one note.
 */
function chordIn({ hz, fit: { powers } }: Heard): number | null {
  let all = 0
  for (const power of powers) all += power
  // The first partial is none of theirs.
  if (!(powers[0]! < IDLE_IN_CHORD * all)) return null
  for (const ratio of CHORDS) {
    const parts = ratio.map(() => 0)
    let idle = 0
    powers.forEach((power, i) => {
      const which = ratio.findIndex((part) => (i + 1) % part === 0)
      if (which < 0) idle += power
      else parts[which]! += power
    })
    if (idle < IDLE_IN_CHORD * all && parts.every((part) => part > TWO_NOTES.partOfEach * all))
      return ratio.at(-1)! * hz
  }
  return null
}

function decibels(power: number): number {
  return 10 * Math.log10(power + 1e-20)
}

/** How long a stretch of sound a note of `hz` is read from, seconds. */
export function stretchS(hz: number): number {
  const wanted = Math.max(SHORTEST_S, LEAST_PERIODS / hz)
  return wanted <= LONGEST_S ? wanted : Math.floor(LONGEST_S * hz * 3) / 3 / hz
}
