/** Files and what each imports, as esbuild's metafile has them. */
type Inputs = Readonly<
  Record<string, { readonly imports: readonly { readonly path: string; readonly external?: boolean }[] }>
>

/** Builds what `npm start` runs; false where nothing has changed. */
export function build(options?: { force?: boolean; say?: (line: string) => void }): Promise<boolean>

/** Removes what builds that were interrupted left in `dist`. */
export function clearLeft(dist: string): void

/** Puts a build in the place of the one that is served; the files of that one stay for pages that are open. */
export function swap(dist: string, next: string): void

/** Files that import one another round and round, types aside; undefined where there are none. */
export function circleIn(inputs: Inputs): string[] | undefined
