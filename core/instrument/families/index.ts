import type { Family, FamilyId } from '../family'
import { bass } from './bass'
import { cello } from './cello'
import { viola } from './viola'
import { violin } from './violin'

export const FAMILIES: Readonly<Record<FamilyId, Family>> = { violin, viola, cello, bass }
