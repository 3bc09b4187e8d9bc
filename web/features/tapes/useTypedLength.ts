import { computed, type Ref } from 'vue'
import { judgeLength, parseLength, sizeOf, type Family, type LengthJudgement, type ParsedLength } from '#core'

/** A length as typed, read and judged against the size. */
export interface TypedLength {
  readonly parsed: ParsedLength
  readonly judgement: LengthJudgement | undefined
  /** The length to compute with; undefined while nothing usable is typed. */
  readonly usableMm: number | undefined
}

export function useTypedLength(text: Ref<string>, family: Ref<Family>, sizeId: Ref<string>) {
  return computed<TypedLength>(() => {
    const parsed = parseLength(text.value)
    const size = sizeOf(family.value, sizeId.value)
    if (!parsed.ok || !size) return { parsed, judgement: undefined, usableMm: undefined }
    const judgement = judgeLength(family.value, size, parsed)
    return { parsed, judgement, usableMm: judgement.verdict === 'impossible' ? undefined : parsed.lengthMm }
  })
}
