import { v7 as uuid } from 'uuid'
import type { StudioStore } from '../../db/studio-store'
import { erasing } from './erasing'

/**
 * Everything of a student, for good. What is left is that it was done and when, by an id that names nobody: a backup of before
 * that is put back is told by it.
 */
export async function eraseStudent(store: StudioStore, studentId: string, erasedAt: Date): Promise<void> {
  for (const { sql, values } of erasing(store.studioId, studentId)) await store.run(sql, values)
  await store.insert(store.models.erasure, [{ id: uuid(), studentId, erasedAt }])
}
