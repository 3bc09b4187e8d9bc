export { angleAt, capsule, chain, distance, heading, twoBones } from './geometry'
export type { Bone, Point } from './geometry'
export { BODY_MM, closeUp, label, spot, tag } from './figure'
export type { Figure, FigurePart, HandInPlan, Substance } from './figure'
export { FINGER_BONES_MM, fingerLengthMm } from './hand'
export type { FigureWord } from './words'
export {
  fingertipAngle,
  sectionJoints,
  sectionFigure,
  knuckleNote,
  gapNote,
  thumbTipNote,
  tipAngleNote,
  sectionNote,
  pressNote,
  pushNote,
  liftNote,
  SECTION,
} from './section'
export type { SectionJoints, SectionPose } from './section'
export { planJoints, planFigure, thumbNote, fingerNote, rowNote, slideNote, PLAN } from './plan'
export type { FingerState, PlanJoints, PlanPose } from './plan'
export { frameWidths } from './plan-frames'
export { armJoints, armFigure, wristNote, ARM } from './arm'
export type { ArmJoints, ArmPose } from './arm'
export {
  aboveFigure,
  armAngleNote,
  elbowUnderNote,
  levelNote,
  shoulderFigure,
  shoulderJoints,
  shoulderNote,
  shoulderPart,
  shoulderUpNote,
  SHOULDER,
} from './shoulder'
export type { ShoulderJoints, ShoulderPose } from './shoulder'
export {
  playerJoints,
  playerFigure,
  pegNote,
  endpinNote,
  leanNote,
  elbowNote,
  hunchNote,
  upperBody,
  besideHead,
  BASSIST,
  CELLIST,
} from './player'
export type { PlayerJoints, PlayerPose, SeatedHold } from './player'
export { nailFigure, pluckFigure, tipFigure } from './fingertip'
