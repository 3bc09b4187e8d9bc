import {
  aboveFigure,
  BASSIST,
  CELLIST,
  PLAN,
  planFigure,
  planJoints,
  playerFigure,
  playerJoints,
  SHOULDER,
  shoulderFigure,
  shoulderJoints,
  tag,
  type Figure,
  type FigurePart,
  type PlayerPose,
  type SeatedHold,
} from '../figure'
import { familyOf, type FamilyId } from '../instrument'
import type { BodyFitPart, BodyFitValues } from './body-fit'

/** One drawing of a fit, with its numbers on it, and what of the fit it shows. */
export interface FitFigure {
  readonly parts: readonly BodyFitPart[]
  readonly figure: Figure
}

const REST_VIEW = { x: -130, y: -190, width: 520, height: 380 }

type Place = { readonly x: number; readonly y: number }

/** A number where it was measured; nothing where it was not. */
function tagged(
  place: Place,
  value: number | null,
  unit: 'mm' | 'degrees' | 'times',
  anchor: 'start' | 'middle' | 'end' = 'start',
): FigurePart[] {
  return value === null ? [] : [tag(place, value, unit, anchor)]
}

/** On which side of the first finger a thumb stands is drawn: it needs no sign. */
const asLength = (value: number | null) => (value === null ? null : Math.abs(value))

/** How an instrument was fitted to a body, drawn by its numbers; what was not measured stands as it mostly does. */
export function bodyFitFigures(family: FamilyId, fit: BodyFitValues): FitFigure[] {
  return drawn(family, fit).map(({ parts, figure }) => ({ parts, figure: withTagsInside(figure) }))
}

/** A number whose place lies beyond the picture stands at its edge. */
function withTagsInside(figure: Figure): Figure {
  const { x, y, width, height } = figure
  const clamp = (value: number, least: number, most: number) => Math.min(most, Math.max(least, value))
  return {
    ...figure,
    parts: figure.parts.map((part) =>
      part.kind === 'tag'
        ? {
            ...part,
            at: {
              x: clamp(part.at.x, x + width * EDGE, x + width * (1 - EDGE)),
              y: clamp(part.at.y, y + height * EDGE, y + height * (1 - EDGE / 2)),
            },
          }
        : part,
    ),
  }
}
/** Of the picture, on each side: about as wide as half a number. */
const EDGE = 0.12

function drawn(family: FamilyId, fit: BodyFitValues): FitFigure[] {
  const { hold } = familyOf(family)
  if (hold !== 'shoulder') return seated(hold, fit)
  const pose = {
    ...SHOULDER,
    chinMm: fit.chinRestMm ?? SHOULDER.chinMm,
    restNearMm: fit.restNearMm ?? SHOULDER.restNearMm,
    restFarMm: fit.restFarMm ?? SHOULDER.restFarMm,
    hand: 'on_other_shoulder' as const,
  }
  const { button } = shoulderJoints(pose)
  const angle = fit.bodyAngle ?? 45
  const above = aboveFigure(angle, 'to_the_left')
  const thumb = { ...PLAN, thumbMm: -(fit.thumbMm ?? 0) }
  const { thumbTip } = planJoints(thumb)
  return [
    {
      parts: ['chinRestMm', 'restNearMm', 'restFarMm', 'handsOff'],
      figure: {
        ...shoulderFigure(pose, 1, [
          ...tagged({ x: button.x + 62, y: -pose.chinMm - 16 }, fit.chinRestMm, 'mm'),
          ...tagged({ x: button.x - 4, y: 96 + pose.restNearMm }, fit.restNearMm, 'mm', 'middle'),
          ...tagged({ x: button.x + 116, y: 84 + pose.restFarMm }, fit.restFarMm, 'mm'),
          ...tagged({ x: 372, y: -140 }, fit.handsOff, 'times', 'end'),
        ]),
        // Close to the rests: they are what is set.
        ...REST_VIEW,
      },
    },
    {
      parts: ['bodyAngle'],
      figure: {
        ...above,
        parts: [...above.parts, ...tagged({ x: -130, y: -470 }, fit.bodyAngle, 'degrees', 'end')],
      },
    },
    {
      parts: ['thumbMm'],
      figure: planFigure(
        thumb,
        'shoulder',
        1,
        tagged({ x: thumbTip.x - 14, y: thumbTip.y + 4 }, asLength(fit.thumbMm), 'mm', 'end'),
      ),
    },
  ]
}

function seated(hold: SeatedHold, fit: BodyFitValues): FitFigure[] {
  const usual: PlayerPose = hold === 'knees' ? CELLIST : BASSIST
  const pose: PlayerPose = {
    ...usual,
    endpinMm: fit.endpinMm ?? usual.endpinMm,
    lean: fit.lean ?? usual.lean,
    seatMm: fit.seatMm ?? usual.seatMm,
  }
  const { floorPin, peg, ear } = playerJoints(pose)
  const player: FitFigure = {
    parts: ['endpinMm', 'pegMm', 'seatMm', 'lean'],
    figure: playerFigure(pose, 1, 1, [
      ...tagged({ x: floorPin.x - 70, y: -90 }, fit.endpinMm, 'mm', 'end'),
      ...tagged({ x: ear.x + 190, y: (peg.y + ear.y) / 2 }, fit.pegMm, 'mm'),
      ...tagged({ x: 220, y: -(pose.seatMm ?? 0) + 40 }, fit.seatMm, 'mm'),
      ...tagged({ x: floorPin.x - 60, y: -560 }, fit.lean, 'degrees', 'end'),
    ]),
  }
  if (hold === 'standing') return [player]
  const thumb = { ...PLAN, thumbOutMm: -20, thumbMm: fit.thumbMm === null ? 35 : -fit.thumbMm }
  const { thumbTip } = planJoints(thumb, 'knees')
  return [
    player,
    {
      parts: ['thumbMm'],
      figure: planFigure(
        thumb,
        'knees',
        1,
        tagged({ x: thumbTip.x, y: 54 }, asLength(fit.thumbMm), 'mm', 'middle'),
      ),
    },
  ]
}
