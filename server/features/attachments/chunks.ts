/** Cuts a stream of bytes into pieces of `size`, the last one shorter; never holds more than one piece and what came last. */
export async function* inPieces(bytes: AsyncIterable<Buffer>, size: number): AsyncGenerator<Buffer> {
  let waiting: Buffer[] = []
  let count = 0
  for await (const part of bytes) {
    waiting.push(part)
    count += part.length
    while (count >= size) {
      const all = Buffer.concat(waiting)
      yield all.subarray(0, size)
      const rest = all.subarray(size)
      waiting = [rest]
      count = rest.length
    }
  }
  if (count > 0) yield Buffer.concat(waiting)
}
