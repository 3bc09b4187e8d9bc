import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { expect, it } from 'vitest'

const ROOT = join(import.meta.dirname, '../..')
const FOLDERS = ['core', 'contracts', 'server', 'web', 'scripts', 'bench', 'e2e', 'docs']
const FILES = FOLDERS.flatMap((folder) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((path) => /\.(ts|mts|mjs|vue|md)$/.test(path) && !path.includes('node_modules'))
    .map((path) => `${folder}/${path}`),
).concat('README.md', 'CONTRIBUTING.md')

interface Citation {
  readonly from: string
  readonly page: string
  readonly sections: readonly string[]
}

/** `docs/trade.md § 4 and § 9`, or in a page of docs `[bench](bench.md)` and `trade.md § 2`, from where it stands. */
function citationsIn(from: string): Citation[] {
  // A citation goes on behind the star of the next line of a comment.
  const text = readFileSync(join(ROOT, from), 'utf8').replace(/\n\s*(?:\*|\/\/)? ?/g, ' ')
  const cited = text.matchAll(/((?:\.\.\/|docs\/)?[\w/.-]*[\w-]\.md)((?: and| to|,)? § ?\d+)*/g)
  return [...cited].map(([whole, page = '']) => ({
    from,
    page,
    sections: [...whole.matchAll(/§ ?(\d+)/g)].map(([, section = '']) => section),
  }))
}

it('no comment, test or page cites what is not there', () => {
  const citations = FILES.filter((file) => !file.endsWith('citations.test.ts')).flatMap(citationsIn)
  const nowhere = citations.filter(({ from, page, sections }) => {
    const found = [join(ROOT, page), join(ROOT, dirname(from), page), join(ROOT, 'docs', page)].find(
      existsSync,
    )
    if (!found) return true
    const headings = readFileSync(found, 'utf8')
    return sections.some((section) => !headings.includes(`\n## § ${section} `))
  })
  expect(nowhere).toEqual([])
  // What the trade knows is cited often, and every section of it.
  const trade = citations.filter(({ page }) => page.endsWith('trade.md'))
  expect(trade.length).toBeGreaterThan(50)
  expect([...new Set(trade.flatMap(({ sections }) => sections))].sort()).toEqual(['1', '10', ...'23456789'])
})
