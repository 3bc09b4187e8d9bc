import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'
import { familiesHeld, FAMILY_IDS, familyFault, familyOf, HOLD_IDS, readFamily } from '../../core'

const ROOT = join(import.meta.dirname, '../..')
const sources = ['core', 'contracts', 'server', 'web'].flatMap((folder) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((path) => /\.(ts|vue)$/.test(path) && !/\.test\.ts$|testing/.test(path))
    .map((path) => `${folder}/${path}`),
)

/** What a family is lies in its own file and in its technique; elsewhere its facts are asked for, never its name. */
const ids = FAMILY_IDS.join('|')
const ASKS_FOR_A_NAME = new RegExp(`(?:===|!==) '(?:${ids})'|Record<FamilyId, (?!Family>|Technique>|string>)`)

it('no source asks which family it is: a fifth one is its own file and its technique', () => {
  const asking = sources
    .filter((file) => !/^core\/(instrument\/families|technique)\/|^server\/db\/migrations\//.test(file))
    .flatMap((file) =>
      readFileSync(join(ROOT, file), 'utf8')
        .split('\n')
        .flatMap((line, i) => (ASKS_FOR_A_NAME.test(line) ? [`${file}:${i + 1}: ${line.trim()}`] : [])),
    )
  expect(sources.length).toBeGreaterThan(400)
  expect(asking).toEqual([])
})

it('every family is held in one way, is known by all its names, and has no frets', () => {
  expect(HOLD_IDS.flatMap(familiesHeld).sort()).toEqual([...FAMILY_IDS].sort())
  for (const id of FAMILY_IDS) {
    const { name, otherNames } = familyOf(id)
    for (const called of [name, `${name}s`, ...otherNames]) expect(readFamily(called), called).toBe(id)
    expect(familyFault(familyOf(id))).toBeUndefined()
  }
  expect(['Double Basses', '’cello', 'contrabass', 'string-bass'].map(readFamily)).toEqual([
    'bass',
    'cello',
    'bass',
    'bass',
  ])
  expect(readFamily('guitar')).toBeUndefined()
  expect(familyFault({ ...familyOf('violin'), hasFrets: true })).toBe('has_frets')
})
