import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const ROOMS = ['core', 'contracts', 'web', 'server', 'scripts', 'bench', 'e2e', 'docs']
const FILES = ROOMS.flatMap((room) =>
  readdirSync(room, { recursive: true, encoding: 'utf8' }).map((file) => join(room, file)),
)

/** What a page of the documentation puts between backticks and means as a file or a folder. */
function namedIn(page: string): string[] {
  return [...readFileSync(page, 'utf8').matchAll(/`([^`\s]+)`/g)]
    .map(([, name]) => name!)
    .filter((name) => /\.(ts|vue|md|mjs)$|\/$/.test(name))
}

it.each(['docs/formulas.md', 'docs/security.md'])(
  'every file that %s names is there, tests by their own names or with their folders',
  (page) => {
    const isThere = (name: string) =>
      name.endsWith('/')
        ? FILES.some((file) => file.startsWith(name))
        : FILES.some((file) => file === name || file.endsWith(`/${name}`))
    const named = namedIn(page)
    expect(named.length).toBeGreaterThan(30)
    expect(named.filter((name) => !isThere(name))).toEqual([])
  },
)
