/** A change without the keys that were not given, so that those columns stay as they are. */
export function given<T extends object>(change: T): { [K in keyof T]?: Exclude<T[K], undefined> } {
  return Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as never
}
