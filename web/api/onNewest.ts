import { ApiProblem } from './client'

const MOST_TRIES = 5

/**
 * Saves a change of one thing. Where somebody else has saved meanwhile, it is made again on what they saved, so that neither
 * undoes the other's; what is refused for another reason, or time after time, is thrown.
 */
export async function onNewest<Row extends { readonly version: number }, Answer>(
  row: Row,
  save: (newest: Row) => Promise<Answer>,
): Promise<Answer> {
  let newest = row
  for (let tries = 1; ; tries++)
    try {
      return await save(newest)
    } catch (error) {
      const isOlder = error instanceof ApiProblem && error.code === 'changed_meanwhile'
      if (!isOlder || tries >= MOST_TRIES) throw error
      newest = error.problem?.data as Row
    }
}
