import { inject, type InjectionKey } from 'vue'

/** The field that a control stands in. */
export interface Field {
  /** Gives the field's id to the first control that asks: what the label names. */
  claim(): string | undefined
}
export const FIELD: InjectionKey<Field> = Symbol('field')

/** The id that the label of the field around names; undefined outside of a field, or where another control has it. */
export function useFieldId(): string | undefined {
  return inject(FIELD, undefined)?.claim()
}

/** Set inside a modal dialog: lists that open there are drawn inside it, since the page behind cannot reach over it. */
export const IN_DIALOG: InjectionKey<boolean> = Symbol('in a dialog')
