/** Reads what Prometheus scrapes; the package has no types of its own. */
declare module 'parse-prometheus-text-format' {
  interface Family {
    readonly name: string
    readonly type: string
    readonly metrics: readonly {
      readonly labels?: Readonly<Record<string, string>>
      readonly value?: string
    }[]
  }
  export default function parse(text: string): Family[]
}
