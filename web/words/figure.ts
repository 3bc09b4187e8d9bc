import type { Figure } from '#core'
import { length } from './numbers'
import { FIGURE_WORDS } from './setup'

/** What a drawing says, with its numbers: `open gap, 13 mm`. */
export function captionOf({ parts }: Figure): string {
  return parts
    .flatMap((part) => {
      if (part.kind !== 'label') return []
      if (part.value === undefined) return FIGURE_WORDS[part.says]
      const value = part.unit === 'degrees' ? `${part.value}°` : length(part.value, 0)
      return `${FIGURE_WORDS[part.says]}, ${value.replace('-', '−')}`
    })
    .join(' · ')
}
