/** As much of jzz-midi-smf as the tests use; it comes without types. */
declare module 'jzz-midi-smf' {
  export default function addTo(jzz: unknown): void
}
