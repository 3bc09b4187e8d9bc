const READ_AT_ONCE = 50

/**
 * What is read of many rows, some at a time: nobody waits for more than one part of it. The answer is in the order of `of`.
 */
export async function readInParts<Of, Row>(
  of: readonly Of[],
  read: (part: readonly Of[]) => Promise<readonly Row[]>,
): Promise<Row[]> {
  const rows: Row[] = []
  for (let from = 0; from < of.length; from += READ_AT_ONCE)
    rows.push(...(await read(of.slice(from, from + READ_AT_ONCE))))
  return rows
}

/**
 * Reads for one answer. Those for a single record go side by side; those of a list one after the other, so that a long list
 * never keeps more than one of the database's threads from everybody else.
 */
export async function readAll<const Reads extends readonly (() => Promise<unknown>)[]>(
  isList: boolean,
  reads: Reads,
): Promise<{ -readonly [K in keyof Reads]: Awaited<ReturnType<Reads[K]>> }> {
  const answers: unknown[] = []
  if (isList) for (const read of reads) answers.push(await read())
  else answers.push(...(await Promise.all(reads.map((read) => read()))))
  return answers as { -readonly [K in keyof Reads]: Awaited<ReturnType<Reads[K]>> }
}
