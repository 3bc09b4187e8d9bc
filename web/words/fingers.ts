import { THUMB, type Digit } from '#core'

/** What stands for a finger where there is no music face: a figure, T for the thumb. */
export function fingerSign(finger: Digit): string {
  return finger === THUMB ? 'T' : String(finger)
}

/** Read aloud: `open string`, `finger 2`, `thumb`. */
export function fingerWords(finger: Digit): string {
  return finger === 0 ? 'open string' : finger === THUMB ? 'thumb' : `finger ${finger}`
}
