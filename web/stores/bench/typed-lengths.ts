import { mean } from 'd3-array'
import { computed, type Ref } from 'vue'
import {
  judgeLength,
  judgeStrings,
  parseLength,
  sizeOf,
  type Family,
  type LengthJudgement,
  type ParsedLength,
  type Size,
} from '#core'
import type { BenchSetup } from './setup'

/** A length as typed, read and judged against the size. */
export interface TypedLength {
  readonly parsed: ParsedLength
  readonly judgement: LengthJudgement | undefined
  /** The string length to compute with, mm; undefined while nothing usable is typed. */
  readonly usableMm: number | undefined
}

export function useTypedLengths(setup: Ref<BenchSetup>, family: Ref<Family>) {
  const size = computed(() => sizeOf(family.value, setup.value.sizeId))
  const one = computed(() =>
    readTyped(setup.value.lengthText, family.value, size.value, setup.value.method === 'harmonic' ? 2 : 1),
  )
  const each = computed(() =>
    setup.value.stringTexts.map((text) => readTyped(text, family.value, size.value, 1)),
  )
  /** One length for all strings, or one a string; undefined while what is typed cannot be used. */
  const usableMm = computed<readonly number[] | undefined>(() => {
    if (setup.value.method !== 'strings')
      return one.value.usableMm === undefined ? undefined : [one.value.usableMm]
    const lengths = each.value.flatMap(({ usableMm: mm }) => mm ?? [])
    if (lengths.length < each.value.length || lengths.length === 0) return undefined
    return judgeStrings(family.value, lengths).code === 'contradictory' ? undefined : lengths
  })
  /** Lengths that no one instrument can have together. */
  const contradiction = computed(() => {
    const lengths = each.value.flatMap(({ parsed }) => (parsed.ok ? parsed.lengthMm : []))
    if (setup.value.method !== 'strings' || lengths.length < each.value.length) return undefined
    const judged = judgeStrings(family.value, lengths)
    return judged.code === 'contradictory' ? judged : undefined
  })
  /** Where each string was measured and none fits: judged together, since no one string is to blame. */
  const together = computed(() => {
    const lengths = each.value.flatMap(({ parsed, judgement }) =>
      parsed.ok && judgement?.verdict !== 'fits' ? parsed.lengthMm : [],
    )
    if (setup.value.method !== 'strings' || lengths.length < each.value.length || !size.value)
      return undefined
    return judgeLength(family.value, size.value, { number: mean(lengths) ?? 0, unit: 'mm' })
  })
  return { one, each, usableMm, contradiction, together }
}

function readTyped(text: string, family: Family, size: Size | undefined, times: 1 | 2): TypedLength {
  const read = parseLength(text)
  if (!read.ok || !size) return { parsed: read, judgement: undefined, usableMm: undefined }
  const parsed = { ...read, lengthMm: read.lengthMm * times }
  const judgement = judgeLength(family, size, { ...read, times })
  return { parsed, judgement, usableMm: judgement.verdict === 'impossible' ? undefined : parsed.lengthMm }
}
