import { randomNormal } from 'd3-random'
import { familyOf, type FamilyId } from '../instrument'
import { A4_HZ, frequencyHz } from '../pitch'
import type { Manner, Performance, PlayedNote } from './performance'
import type { RandomSource } from './player'
import { addRoom } from './room'
import { bowedPartials, pluckedPartials } from './spectrum'

/** Where and how a performance is recorded. */
export interface Recording {
  readonly sampleRateHz: number
  readonly a4Hz: number
  /** Root mean square of the loudest note, dB of full scale. */
  readonly levelDb: number
  /** White noise below that level, dB; Infinity for none. */
  readonly noiseDb: number
  /** Part of the sound that comes back from a small room, 0 … 1. */
  readonly room: number
}

export const PLAIN_RECORDING: Recording = {
  sampleRateHz: 44_100,
  a4Hz: A4_HZ,
  levelDb: -20,
  noiseDb: 40,
  room: 0.15,
}

/** The bow's weight and speed change within some tenths of a second. */
const SWING_HZ = 3
/** A vibrato begins so long after its note, and grows for as long. */
const VIBRATO_AFTER_S = 0.15
/** How far the turns of a vibrato differ in their width, and how far their rate wanders, as parts. */
const VIBRATO_UNEVEN = { width: 0.2, rate: 0.06, hz: 1.5 } as const
/**
 * By what part a partial's strength changes for each cent that a vibrato moves it along the body's resonances, one standard deviation: the
 * level of a recorded cello swings by 1.2 dB (root mean square) in a vibrato of 7 cents.
 */
const RESONANCE_PER_CENT = 0.03
/** No resonance leaves less of a partial, or makes it stronger. */
const RESONANCE = { least: 0.25, most: 1.75 } as const
/** A bow change: how long, and what is left of the sound in its middle. */
const BOW_CHANGE = { lastsS: 0.05, left: 0.12 } as const
/** A finger falls on a sounding string within this. */
const FINGER_FALLS_S = 0.012
/** Samples between two settings of the partials' strengths. */
const STEP = 32
/** A string dies away after its note. */
const RELEASE_S = 0.06

/**
 * A performance as sound: partials of a bowed or plucked string through a body, with the bow's attack and hiss or the pluck's
 * decay, in a room. The same source, the same samples, −1 … 1.
 */
export function record(
  source: RandomSource,
  { stringing, manner, notes }: Performance,
  recording: Partial<Recording> = {},
): Float32Array {
  const full = { ...PLAIN_RECORDING, ...recording }
  const { sampleRateHz, levelDb, noiseDb, room } = full
  const familyId = stringing.family.id
  const endS = (notes.at(-1)?.endS ?? 0) + 0.5
  const output = new Float64Array(Math.ceil(endS * sampleRateHz))
  notes.forEach((note, i) => {
    const next = notes[i + 1]
    sound(output, source, familyId, manner, note, next, full)
  })
  if (room > 0) addRoom(output, sampleRateHz, room)
  return levelled(output, source, 10 ** (levelDb / 20), noiseDb)
}

function levelled(output: Float64Array, source: RandomSource, level: number, noiseDb: number): Float32Array {
  const hiss = randomNormal.source(source)(0, level * 10 ** (-noiseDb / 20))
  return Float32Array.from(output, (value) => {
    const loud = value * level + (noiseDb < Infinity ? hiss() : 0)
    return Math.max(-1, Math.min(1, loud))
  })
}

/** Noise of standard deviation 1 through one pole, told step by step. */
function wandering(normal: () => number, hz: number, stepS: number): () => number {
  const a = Math.exp(-2 * Math.PI * hz * stepS)
  let value = normal()
  return () => (value = a * value + Math.sqrt(1 - a * a) * normal())
}

/** The same through a second pole: without sudden turns. */
function swinging(normal: () => number, hz: number, stepS: number): () => number {
  const first = wandering(normal, hz, stepS)
  const a = Math.exp(-2 * Math.PI * hz * stepS)
  let value = first()
  return () => Math.SQRT2 * (value = a * value + (1 - a) * first())
}

/** The pitch of a note from its beginning, cents above A4. */
function pitchOf(source: RandomSource, familyId: FamilyId, note: PlayedNote, manner: Manner, stepS: number) {
  const { vibrato, repair, faults, stroke } = manner
  const normal = randomNormal.source(source)(0, 1)
  const { scoop, jitterCents } = familyOf(familyId).sound.uneven
  const scoopCents = stroke === 'bow' && !note.isSlurred ? scoop.meanCents + scoop.sigmaCents * normal() : 0
  const width = wandering(normal, VIBRATO_UNEVEN.hz, stepS)
  const rate = wandering(normal, VIBRATO_UNEVEN.hz, stepS)
  let phase = source() * 2 * Math.PI
  const jitter = wandering(normal, 20, stepS)
  let [wobble, wobbleSpeed] = [0, 0]
  const swingAt = (atS: number) => {
    if (!vibrato || note.finger === 0 || atS <= VIBRATO_AFTER_S) return 0
    const { rateHz, widthCents, aboveCents } = vibrato
    phase += 2 * Math.PI * rateHz * (1 + VIBRATO_UNEVEN.rate * rate()) * stepS
    const grown = Math.min(1, (atS - VIBRATO_AFTER_S) / VIBRATO_AFTER_S)
    const half = (widthCents / 2) * Math.max(0, 1 + VIBRATO_UNEVEN.width * width())
    return grown * (aboveCents - widthCents / 2 + half * Math.sin(phase))
  }
  return (atS: number): { readonly cents: number; readonly swing: number } => {
    // A finger that gives way: noise through two poles at 2 Hz.
    const w = 2 * Math.PI * 2
    wobbleSpeed += stepS * (-w * w * wobble - 2 * w * wobbleSpeed) + 2 * w * Math.sqrt(w * stepS) * normal()
    wobble += stepS * wobbleSpeed
    const through = Math.max(0, Math.min(1, (atS - repair.afterS) / repair.lastsS))
    const moved = through * through * (3 - 2 * through)
    const swing = swingAt(atS)
    const cents =
      note.writtenCents +
      note.landingCents +
      moved * (note.settledCents - note.landingCents) +
      swing +
      scoopCents * Math.exp(-atS / scoop.fallsS) +
      jitterCents * jitter() +
      (note.finger === 0 ? 0 : faults.wobbleCents * wobble)
    return { cents, swing }
  }
}

function sound(
  output: Float64Array,
  source: RandomSource,
  familyId: FamilyId,
  manner: Manner,
  note: PlayedNote,
  next: PlayedNote | undefined,
  { sampleRateHz, a4Hz }: Recording,
): void {
  const stepS = STEP / sampleRateHz
  const pitch = pitchOf(source, familyId, note, manner, stepS)
  const uneven = familyOf(familyId).sound.uneven
  const bowed = manner.stroke === 'bow'
  const hz = frequencyHz(note.writtenCents + note.landingCents, a4Hz)
  const highestHz = Math.min(0.45 * sampleRateHz, 12_000)
  const { dullness, dullFinger } = manner.faults
  const dull = dullFinger === null || dullFinger === note.finger ? 1 - 0.8 * dullness : 1
  const partials = (bowed ? bowedPartials : pluckedPartials)(familyId, hz, highestHz).map(
    (a, i) => a * dull ** (i / 2),
  )
  const stiffness = bowed ? 0 : familyOf(familyId).sound.stiffness
  const ratios = partials.map((_, i) => {
    const k = i + 1
    return k * Math.sqrt((1 + stiffness * k * k) / (1 + stiffness))
  })
  const phases = partials.map(() => 2 * Math.PI * source())
  const slope = randomNormal.source(source)(0, RESONANCE_PER_CENT)
  const slopes = partials.map(() => slope())
  const from = Math.round(note.startS * sampleRateHz)
  // A slurred note takes over in a crossing as short as a finger's fall.
  const fadeInS = note.isSlurred ? FINGER_FALLS_S : 0
  const fadeOutS = next?.isSlurred ? FINGER_FALLS_S : RELEASE_S
  const endS = note.endS - note.startS
  const to = Math.min(
    output.length,
    from + Math.round((endS + (next?.isSlurred ? fadeOutS : 4 * fadeOutS)) * sampleRateHz),
  )
  const hiss = randomNormal.source(source)(0, 1)
  const weight = swinging(hiss, SWING_HZ, stepS)
  let [rough, rough2] = [0, 0]
  const strengths = partials.map(() => 0)
  for (let n = from; n < to; n += STEP) {
    const atS = (n - from) / sampleRateHz
    const { cents, swing } = pitch(atS)
    const stepHz = frequencyHz(cents, a4Hz)
    const resonance = (k: number) =>
      Math.max(RESONANCE.least, Math.min(RESONANCE.most, 1 + slopes[k]! * swing))
    const even = loudness(atS, endS, fadeInS, fadeOutS, note, next, bowed)
    const loud = bowed ? even * 10 ** ((uneven.swingDb * weight()) / 20) : even
    const targets = partials.map(
      (a, i) => a * loud * resonance(i) * partialAt(i + 1, atS, familyId, bowed, note.isSlurred),
    )
    const count = Math.min(STEP, to - n)
    const turn = (2 * Math.PI * stepHz) / sampleRateHz
    for (let k = 0; k < partials.length; k++) {
      // A phasor turned from sample to sample: its step stays the same within these few.
      const [c, s] = [Math.cos(ratios[k]! * turn), Math.sin(ratios[k]! * turn)]
      let re = Math.cos(phases[k]!)
      let im = Math.sin(phases[k]!)
      let strength = strengths[k]!
      const grows = (targets[k]! - strength) / STEP
      for (let i = n; i < n + count; i++) {
        output[i]! += strength * re
        strength += grows
        const next = re * c - im * s
        im = re * s + im * c
        re = next
      }
      phases[k] = (phases[k]! + ratios[k]! * turn * count) % (2 * Math.PI)
    }
    for (let i = 0; i < count; i++) {
      // The bow's hiss, and the scratch of its first moment; the finger's tick on a plucked string.
      rough += 0.25 * (hiss() - rough)
      rough2 += 0.25 * (rough - rough2)
      const scratch = bowed
        ? loud * (uneven.hiss + (note.isSlurred ? 0 : 0.25 * Math.exp(-atS / 0.018)))
        : 0.5 * Math.exp(-(atS + i / sampleRateHz) / 0.003)
      output[n + i]! += scratch * (rough - rough2)
    }
    targets.forEach((target, k) => (strengths[k] = target))
  }
}

/** Strength of a note as a whole. */
function loudness(
  atS: number,
  endS: number,
  fadeInS: number,
  fadeOutS: number,
  note: PlayedNote,
  next: PlayedNote | undefined,
  bowed: boolean,
): number {
  const fadeIn = fadeInS > 0 ? Math.min(1, atS / fadeInS) : 1
  const left = atS - endS
  if (!bowed) return left > 0 ? Math.exp(-left / 0.02) : fadeIn
  if (next?.isSlurred) return left > 0 ? fadeIn * Math.max(0, 1 - left / fadeOutS) : fadeIn
  // Towards a bow change the bow slows; after the last note or before a rest the string is left to ring.
  const isChange = next !== undefined && next.startS - note.endS < 0.01
  const slowing = isChange ? Math.min(1, BOW_CHANGE.left - (left / BOW_CHANGE.lastsS) * 2) : 1
  if (left > 0) return BOW_CHANGE.left * Math.exp(-left / (fadeOutS / 3))
  return fadeIn * (isChange ? Math.max(BOW_CHANGE.left, slowing) : Math.min(1, 0.15 - left / 0.05))
}

/** Strength of partial k a while after its note began. */
function partialAt(k: number, atS: number, familyId: FamilyId, bowed: boolean, isSlurred: boolean): number {
  if (!bowed)
    return (
      Math.min(1, atS / 0.002) * Math.exp((-atS / familyOf(familyId).sound.ringsS) * (1 + 0.25 * (k - 1)))
    )
  return isSlurred ? 1 : 1 - Math.exp(-atS / (familyOf(familyId).sound.bowSpeaksS * (1 + 0.05 * k)))
}
