import {
  armFigure,
  closeUp,
  BASSIST,
  CELLIST,
  planFigure,
  playerFigure,
  sectionFigure,
  sectionJoints,
  shoulderPart,
  wristNote,
  type ArmPose,
  type Figure,
  type FigurePart,
  type PlanPose,
  type PlayerPose,
  type SeatedHold,
  type SectionPose,
  type ShoulderPose,
  SECTION,
  PLAN,
  ARM,
  type FigureWord,
} from '../../figure'
import { familyOf, type FamilyId, type HoldId } from '../../instrument'
import type { Schools } from '../schools'

/** As it should be, the usual wrong, or as somebody measured it. */
export type FigureSide = 'right' | 'wrong'

export interface FigureAsked {
  readonly side: FigureSide
  readonly schools: Schools
  readonly family: FamilyId
  /** The item’s own measured value, which takes the place of the side’s. */
  readonly measured?: number | undefined
  /** The instrument’s string length for the full size’s; lengths are told for it. */
  readonly scale?: number | undefined
  /** The hand’s size for its instrument: 1 where its comfortable span is the frame’s width. */
  readonly hand?: number | undefined
}

export type Draw = (asked: FigureAsked) => Figure

export const holdOf = (family: FamilyId): HoldId => familyOf(family).hold

export function section(
  right: Partial<SectionPose>,
  wrong: Partial<SectionPose>,
  note: (pose: SectionPose, asked: FigureAsked) => FigurePart[],
  {
    measured,
    close,
  }: { measured?: keyof SectionPose; close?: readonly [joint: 'last' | 'thumb', width: number] } = {},
): Draw {
  return (asked) => {
    const pose: SectionPose = {
      ...SECTION,
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    const hold = holdOf(asked.family)
    const figure = sectionFigure(pose, hold, asked.hand, note(pose, asked))
    if (!close) return figure
    const [of, width] = close
    const joints = sectionJoints(pose, hold, asked.hand)
    return closeUp(figure, of === 'last' ? joints.last : joints.thumb[2], width)
  }
}

type PlanNote = (pose: PlanPose, hold: HoldId, asked: FigureAsked) => FigurePart[]
type Poses<Pose> = Partial<Pose> | ((schools: Schools) => Partial<Pose>)
const posed = <Pose>(poses: Poses<Pose>, schools: Schools) =>
  typeof poses === 'function' ? poses(schools) : poses

export function plan(
  right: Poses<PlanPose>,
  wrong: Poses<PlanPose>,
  note: PlanNote,
  measured?: (value: number, hold: HoldId) => Partial<PlanPose>,
): Draw {
  return (asked) => {
    const { side, schools, measured: value } = asked
    const hold = holdOf(asked.family)
    const pose: PlanPose = {
      ...PLAN,
      ...BEHIND[hold],
      ...posed(side === 'right' ? right : wrong, schools),
      ...(measured && value !== undefined ? measured(value, hold) : {}),
    }
    return planFigure(pose, hold, asked.hand, note(pose, hold, asked))
  }
}
/** Where the thumb of a hand stands on its instrument. */
const BEHIND: Record<HoldId, Partial<PlanPose>> = {
  shoulder: {},
  knees: { thumbOutMm: -20, thumbMm: 35, string: 2 },
  standing: { thumbOutMm: -26, thumbMm: 24, string: 2, fingers: { 1: 'down', 2: 'down', 4: 'down' } },
}

export function arm(
  right: Partial<ArmPose>,
  wrong: Partial<ArmPose>,
  says: (asked: FigureAsked) => FigureWord,
  measured?: keyof ArmPose,
): Draw {
  return (asked) => {
    const hold = holdOf(asked.family) === 'shoulder' ? 'under_chin' : 'upright'
    const pose: ArmPose = {
      ...ARM,
      hold,
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    return armFigure(pose, asked.hand, wristNote(pose, says(asked), asked.hand))
  }
}

/** A violinist from the front, as close as the item asks: about a place, so wide. */
export function shoulder(
  right: Partial<ShoulderPose>,
  wrong: Partial<ShoulderPose>,
  note: (pose: ShoulderPose, asked: FigureAsked) => FigurePart[],
  {
    measured,
    about = VIOLINIST,
  }: { measured?: keyof ShoulderPose; about?: readonly [x: number, y: number, width: number] } = {},
): Draw {
  return (asked) => {
    const pose = {
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    const [x, y, width] = about
    return shoulderPart(pose, { x, y }, width, (whole) => note(whole, asked))
  }
}
/** All of the player and the instrument. */
const VIOLINIST = [235, 25, 900] as const

/** A cellist or bassist: all of it, or as close as the item asks. */
export function player(
  hold: SeatedHold,
  right: Partial<PlayerPose>,
  wrong: Partial<PlayerPose>,
  note: (pose: PlayerPose, asked: FigureAsked) => FigurePart[],
  {
    measured,
    close,
  }: { measured?: keyof PlayerPose; close?: (figure: Figure, pose: PlayerPose) => Figure } = {},
): Draw {
  return (asked) => {
    const pose: PlayerPose = {
      ...(hold === 'knees' ? CELLIST : BASSIST),
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    const figure = playerFigure(pose, 1, 1, note(pose, asked))
    return close ? close(figure, pose) : figure
  }
}

/** Says one thing of the right side and another of the wrong. */
export const says =
  (right: FigureWord, wrong: FigureWord) =>
  ({ side }: Pick<FigureAsked, 'side'>) =>
    side === 'right' ? right : wrong

export const THUMB_AT: Record<Schools['thumb_violin'], number> = {
  opposite_1: 0,
  behind_1: -25,
  opposite_2: 26,
}
export const CELLO_THUMB_AT: Record<Schools['thumb_cello'], number> = { behind_2: 36, between_1_and_2: 19 }
export const BASS_THUMB_AT: Record<Schools['thumb_bass'], number> = { behind_1: 0, behind_2: 52 }

/** Of what every family is asked: a violinist from the front, a cellist or a bassist from the side. */
export const forEach =
  (upper: Draw, seated: (hold: SeatedHold) => Draw): Draw =>
  (asked) => {
    const hold = holdOf(asked.family)
    return hold === 'shoulder' ? upper(asked) : seated(hold)(asked)
  }
