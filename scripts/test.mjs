// `npm test`: sets up what the tests need, runs every one, and says how many passed.
import { ensurePackages } from './packages.mjs'

ensurePackages()
const { register } = await import('tsx/esm/api')
register()
await import('./test.ts')
