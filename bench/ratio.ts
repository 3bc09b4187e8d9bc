/** How many times longer one thing takes than its peer, both measured in turn in one run. */
export interface Ratio {
  readonly name: string
  readonly oursMs: number
  readonly peerMs: number
  readonly ratio: number
  /** What the ratio should stay below. */
  readonly aim: number
}

const ROUNDS = 15
const WARM_UP = 3

export function ratioOf(name: string, ours: () => unknown, peer: () => unknown, aim: number): Ratio {
  const pairs = Array.from({ length: WARM_UP + ROUNDS }, () => [timed(ours), timed(peer)] as const).slice(
    WARM_UP,
  )
  return summed(name, pairs, aim)
}

export async function asyncRatioOf(
  name: string,
  ours: () => Promise<unknown>,
  peer: () => Promise<unknown>,
  aim: number,
): Promise<Ratio> {
  const pairs: (readonly [number, number])[] = []
  for (let round = 0; round < WARM_UP + ROUNDS; round++)
    pairs.push([await timedAsync(ours), await timedAsync(peer)])
  return summed(name, pairs.slice(WARM_UP), aim)
}

export async function times(n: number, work: () => Promise<unknown>): Promise<void> {
  for (let i = 0; i < n; i++) await work()
}

function summed(name: string, pairs: readonly (readonly [number, number])[], aim: number): Ratio {
  return {
    name,
    oursMs: median(pairs.map(([ours]) => ours)),
    peerMs: median(pairs.map(([, peer]) => peer)),
    // The median of the ratios pair by pair: a machine that slows down slows both of a pair.
    ratio: median(pairs.map(([ours, peer]) => ours / peer)),
    aim,
  }
}

function timed(work: () => unknown): number {
  const from = performance.now()
  work()
  return performance.now() - from
}

/** The work may say itself how long it took, where something was made ready before. */
async function timedAsync(work: () => Promise<unknown>): Promise<number> {
  const from = performance.now()
  const said = await work()
  return typeof said === 'number' ? said : performance.now() - from
}

function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b)
  return sorted[Math.floor(sorted.length / 2)] ?? NaN
}
