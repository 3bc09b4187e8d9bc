import {
  drillNotes,
  drillsFor,
  familyOf,
  fingerScale,
  keysOf,
  placementContext,
  scoreOf,
  type FamilyId,
  type FigureId,
  type LineNote,
} from '../../core'
import { drawScore } from '../../web/notation/draw'
import { inkOf } from '../../web/notation/ink'
import { linesForPaper } from '../../web/notation/lines'

/** What the page tells of the lines it has drawn. */
export interface Drawn {
  readonly lines: number
  /** Pairs of lines whose ink meets, and fingers that lie on the ink of a sign or a ledger line. */
  readonly collisions: readonly string[]
}

/** Draws every scale or arpeggio of a family that has so many octaves, one under the other, each in a box of its own. */
async function drawAll(id: FamilyId, figure: FigureId, octaves: 1 | 2 | 3, width: number): Promise<Drawn> {
  const family = familyOf(id)
  const context = placementContext(family, family.tuning)
  // Every signature, and signs before notes on both ways.
  const keys = [...keysOf('major'), ...keysOf('melodic_minor').filter((_, i) => i % 4 === 0)]
  const scores = keys.flatMap((key) => {
    const made = fingerScale(context, { key, figure, octaves })
    return made.ok ? [{ name: key.id, score: scoreOf(id, key, made.notes, 'quarter') }] : []
  })
  return drawEach(scores, width)
}

/** Draws every drill of a family in first position, in eighths. */
async function drawDrills(id: FamilyId, width: number): Promise<Drawn> {
  const family = familyOf(id)
  const context = placementContext(family, family.tuning)
  const [key] = keysOf('major').slice(9)
  const scores = drillsFor(id).flatMap((drill) => {
    const made = drillNotes(context, drill, key!, 1, family.positions[1]!, 1)
    const notes: readonly LineNote[] = made.ok ? made.notes : []
    return made.ok ? [{ name: drill.id, score: scoreOf(id, key!, notes, 'eighth') }] : []
  })
  return drawEach(scores, width)
}

/** Letters of the music face that a printed melodic minor has on one and the same place, and how many it has altogether. */
async function lettersOnPaper(id: FamilyId): Promise<{ readonly letters: number; readonly covered: number }> {
  const family = familyOf(id)
  const key = keysOf('melodic_minor').find(({ signature }) => signature === -4)!
  const made = fingerScale(placementContext(family, family.tuning), { key, figure: 'scale', octaves: 2 })
  if (!made.ok) throw new Error(made.code)
  const lines = await linesForPaper(scoreOf(id, key, made.notes, 'quarter'), 180, 2)
  const places = lines.flatMap(({ items }, line) =>
    items.flatMap((item) => (item.kind === 'path' && item.x > 0 ? [`${line} ${item.x} ${item.y}`] : [])),
  )
  return { letters: places.length, covered: places.length - new Set(places).size }
}

async function drawEach(
  scores: readonly { readonly name: string; readonly score: ReturnType<typeof scoreOf> }[],
  width: number,
): Promise<Drawn> {
  document.body.replaceChildren()
  const collisions: string[] = []
  for (const { name, score } of scores) {
    const box = document.createElement('div')
    box.style.cssText = `width:${width}px;padding:40px;box-sizing:content-box`
    document.body.append(box)
    const paper = document.createElement('div')
    const frame = document.createElement('div')
    frame.style.position = 'relative'
    frame.append(paper)
    box.append(frame)
    const notes = await drawScore(paper, score, width)
    const cover = document.createElement('div')
    cover.className = 'cover'
    frame.append(cover)
    if (notes.length !== score.bars.flat().length) collisions.push(`${name}: ${notes.length} notes`)
    const groups = [...paper.querySelectorAll<SVGGElement>('svg > g')].map((group) => {
      const { top, bottom } = inkOf(group)
      const { d: scale, f: dy } = group.transform.baseVal.consolidate()!.matrix
      return { top: scale * top + dy, bottom: scale * bottom + dy }
    })
    groups.slice(1).forEach((line, i) => {
      if (line.top <= groups[i]!.bottom) collisions.push(`${name}: line ${i + 2} on line ${i + 1}`)
    })
  }
  return { lines: scores.length, collisions }
}

Object.assign(window, { drawAll, drawDrills, lettersOnPaper })
