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
