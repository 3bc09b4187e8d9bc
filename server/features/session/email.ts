/** An address as it is kept and looked up: what looks alike is alike (Unicode NFKC), large letters are small ones. */
export function normalEmail(text: string): string {
  return text.normalize('NFKC').trim().toLowerCase()
}
