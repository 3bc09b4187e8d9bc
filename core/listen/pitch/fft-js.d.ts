/** As much of fft.js as is used; it comes without types. */
declare module 'fft.js' {
  export default class FFT {
    constructor(size: number)
    readonly size: number
    createComplexArray(): number[]
    /** Fills the lower half of the spectrum only. */
    realTransform(out: number[], input: ArrayLike<number>): void
    completeSpectrum(spectrum: number[]): void
    transform(out: number[], input: ArrayLike<number>): void
    inverseTransform(out: number[], input: ArrayLike<number>): void
  }
}
