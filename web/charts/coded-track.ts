import { decodeTrack, encodeTrack, type PitchTrack } from '#core'

/** A track as text, for a draft and on its way to the server. */
export function codedTrack(track: PitchTrack): string {
  let text = ''
  for (const byte of encodeTrack(track)) text += String.fromCharCode(byte)
  return btoa(text)
}

/** Inverse of {@link codedTrack}. Throws for text that is none. */
export function trackOf(text: string): PitchTrack {
  return decodeTrack(Uint8Array.from(atob(text), (c) => c.charCodeAt(0)))
}
