import { availableParallelism } from 'node:os'

/** Tests run on so many cores, and as many databases stand ready: a machine of many is not filled with them. */
export const TEST_WORKERS = Math.min(8, availableParallelism())
