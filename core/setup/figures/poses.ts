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
  type SectionPose,
  type ShoulderPose,
  SECTION,
  PLAN,
  ARM,
  type FigureWord,
} from '../../figure'
import type { FamilyId } from '../../instrument'
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

type SectionFamily = 'upper' | 'cello' | 'bass'
export const familyOf = (family: FamilyId): SectionFamily =>
  family === 'violin' || family === 'viola' ? 'upper' : family

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
    const family = familyOf(asked.family)
    const figure = sectionFigure(pose, family, asked.hand, note(pose, asked))
    if (!close) return figure
    const [of, width] = close
    const joints = sectionJoints(pose, family, asked.hand)
    return closeUp(figure, of === 'last' ? joints.last : joints.thumb[2], width)
  }
}

type PlanNote = (pose: PlanPose, family: SectionFamily, asked: FigureAsked) => FigurePart[]
type Poses<Pose> = Partial<Pose> | ((schools: Schools) => Partial<Pose>)
const posed = <Pose>(poses: Poses<Pose>, schools: Schools) =>
  typeof poses === 'function' ? poses(schools) : poses

export function plan(
  right: Poses<PlanPose>,
  wrong: Poses<PlanPose>,
  note: PlanNote,
  measured?: (value: number, family: SectionFamily) => Partial<PlanPose>,
): Draw {
  return (asked) => {
    const { side, schools, measured: value } = asked
    const family = familyOf(asked.family)
    const pose: PlanPose = {
      ...PLAN,
      ...BEHIND[family],
      ...posed(side === 'right' ? right : wrong, schools),
      ...(measured && value !== undefined ? measured(value, family) : {}),
    }
    return planFigure(pose, family, asked.hand, note(pose, family, asked))
  }
}
/** Where the thumb of a hand stands on its instrument. */
const BEHIND: Record<SectionFamily, Partial<PlanPose>> = {
  upper: {},
  cello: { thumbOutMm: -20, thumbMm: 35, string: 2 },
  bass: { thumbOutMm: -26, thumbMm: 24, string: 2, fingers: { 1: 'down', 2: 'down', 4: 'down' } },
}

export function arm(
  right: Partial<ArmPose>,
  wrong: Partial<ArmPose>,
  says: (asked: FigureAsked) => FigureWord,
  measured?: keyof ArmPose,
): Draw {
  return (asked) => {
    const hold = familyOf(asked.family) === 'upper' ? 'under_chin' : 'upright'
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
  plays: 'cello' | 'bass',
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
      ...(plays === 'cello' ? CELLIST : BASSIST),
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
  (upper: Draw, seated: (plays: 'cello' | 'bass') => Draw): Draw =>
  (asked) =>
    asked.family === 'cello' || asked.family === 'bass' ? seated(asked.family)(asked) : upper(asked)
