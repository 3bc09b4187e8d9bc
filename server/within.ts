/** What `work` comes to, or undefined when it has not after `ms`; it goes on, and nobody hears of its failure. */
export async function within<T>(ms: number, work: Promise<T>): Promise<T | undefined> {
  let timer: NodeJS.Timeout | undefined
  const late = new Promise<undefined>((resolve) => (timer = setTimeout(() => resolve(undefined), ms)))
  work.catch(() => {})
  try {
    return await Promise.race([work, late])
  } finally {
    clearTimeout(timer)
  }
}
