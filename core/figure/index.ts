export { angleAt, capsule, chain, distance, heading, twoBones } from './geometry'
export type { Bone, Point } from './geometry'
export { BODY_MM, label, spot, tag } from './figure'
export type { Figure, FigurePart, Substance } from './figure'
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
  SECTION,
} from './section'
export type { SectionJoints, SectionPose } from './section'
export { planJoints, planFigure, thumbNote, fingerNote, rowNote, PLAN } from './plan'
export type { FingerState, PlanJoints, PlanPose } from './plan'
export type { PlanFamily } from './plan-frames'
export { frameWidths } from './plan-frames'
export { armJoints, armFigure, wristNote, ARM } from './arm'
export type { ArmJoints, ArmPose } from './arm'
export { aboveFigure, levelNote, shoulderFigure, shoulderJoints, shoulderNote, SHOULDER } from './shoulder'
export type { ShoulderJoints, ShoulderPose } from './shoulder'
export {
  playerJoints,
  playerFigure,
  pegNote,
  endpinNote,
  leanNote,
  elbowNote,
  BASSIST,
  CELLIST,
} from './player'
export type { PlayerJoints, PlayerPose } from './player'
export { nailFigure, pluckFigure, stringsFigure, tipFigure } from './fingertip'
