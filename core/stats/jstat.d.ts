/** As much of jStat as is used; it comes without types. */
declare module 'jstat' {
  interface Distribution {
    inv(probability: number, degreesOfFreedom: number): number
  }
  const jStat: { readonly studentt: Distribution; readonly chisquare: Distribution }
  export default jStat
}
