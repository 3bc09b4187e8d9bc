declare module 'verovio/wasm' {
  const create: () => Promise<unknown>
  export default create
}

declare module 'verovio/esm' {
  /** What the tests ask of it. */
  export class VerovioToolkit {
    constructor(module: unknown)
    loadData(data: string): number
    getMEI(options?: object): string
    renderToTimemap(options?: object): unknown
    getMIDIValuesForElement(id: string): { pitch: number }
  }
}
