import { describe, expect, it } from 'vitest'
import { ApiProblem } from './client'
import { onNewest } from './onNewest'

interface Row {
  readonly version: number
  readonly text: string
}
const changed = (data: Row) =>
  new ApiProblem({ status: 409, code: 'changed_meanwhile', title: 'Changed', data } as never)

/** A server that others have changed `times` over before one gets through. */
function busy(times: number) {
  const seen: number[] = []
  let version = 1
  return {
    seen,
    save: (row: Row): Promise<Row> => {
      seen.push(row.version)
      if (version <= times) return Promise.reject(changed({ version: ++version, text: `theirs ${version}` }))
      return Promise.resolve({ version: row.version + 1, text: `${row.text} and mine` })
    },
  }
}

describe('a change of one thing', () => {
  it('is made again on what somebody else saved, as often as somebody was quicker', async () => {
    const server = busy(2)
    const saved = await onNewest({ version: 1, text: 'old' }, server.save)
    expect(server.seen).toEqual([1, 2, 3])
    expect(saved).toEqual({ version: 4, text: 'theirs 3 and mine' })
  })

  it('gives up where it never gets through, and says why', async () => {
    const server = busy(Infinity)
    await expect(onNewest({ version: 1, text: 'old' }, server.save)).rejects.toThrow('Changed')
    expect(server.seen).toHaveLength(5)
  })

  it('that is refused for another reason is not tried again', async () => {
    let tries = 0
    const refused = () => (tries++, Promise.reject(new Error('no such school')))
    await expect(onNewest({ version: 1, text: 'old' }, refused)).rejects.toThrow('no such school')
    expect(tries).toBe(1)
  })
})
