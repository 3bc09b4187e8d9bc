/** Labels at the ends of lines, moved down where they would touch. */
export function keptApart<T extends { readonly labelY: number }>(lines: readonly T[], stepPx: number): T[] {
  let last = -Infinity
  return [...lines]
    .sort((a, b) => a.labelY - b.labelY)
    .map((one) => {
      last = Math.max(one.labelY, last + stepPx)
      return { ...one, labelY: last }
    })
}
