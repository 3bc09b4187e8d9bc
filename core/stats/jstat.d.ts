/** As much of jStat as is used; it comes without types. */
declare module 'jstat' {
  const jStat: { readonly studentt: { inv(probability: number, degreesOfFreedom: number): number } }
  export default jStat
}
