import { existsSync, readFileSync } from 'node:fs'
import satisfies from 'spdx-satisfies'
import { expect, it } from 'vitest'

interface Package {
  readonly license?: string
  readonly dev?: boolean
  /** Wanted by something that ships, which runs without it as well. */
  readonly devOptional?: boolean
  readonly hasInstallScript?: boolean
}

/** Under which a school may run and change what ships with Jadefell (MIT), by SPDX. The LGPL's library is linked, unchanged. */
const ALLOWED = [
  'MIT',
  'MIT-0',
  'ISC',
  '0BSD',
  'BSD-2-Clause',
  'BSD-3-Clause',
  'Apache-2.0',
  'BlueOak-1.0.0',
  'CC0-1.0',
  'MPL-2.0',
  'OFL-1.1',
  'LGPL-2.1-or-later',
]
/** They say it in a file of theirs and not in `package.json`: the file, and what it says. */
const READ_BY_US: Readonly<Record<string, readonly [file: string, says: RegExp]>> = {
  'node_modules/jstat': ['LICENSE', /Permission is hereby granted, free of charge/],
  'node_modules/png-js': ['LICENSE', /MIT/],
  'node_modules/dejavu-fonts-ttf': ['LICENSE', /Bitstream Vera/],
}

const { packages } = JSON.parse(readFileSync('package-lock.json', 'utf8')) as {
  packages: Record<string, Package>
}
const shipped = Object.entries(packages).filter(
  ([path, { dev, devOptional }]) => path !== '' && !dev && !devOptional,
)

it('everything that ships may be used by a school, by a licence that is known', () => {
  expect(shipped.length).toBeGreaterThan(100)
  const unknown = shipped.filter(([path, { license = '' }]) => {
    const own = READ_BY_US[path]
    if (own)
      return !existsSync(`${path}/${own[0]}`) || !own[1].test(readFileSync(`${path}/${own[0]}`, 'utf8'))
    try {
      return !satisfies(license, ALLOWED)
    } catch {
      return true
    }
  })
  expect(unknown.map(([path, { license }]) => `${path}: ${license}`)).toEqual([])
})

it('nothing that ships runs a program of its own when it is installed', () => {
  expect(shipped.filter(([, { hasInstallScript }]) => hasInstallScript).map(([path]) => path)).toEqual([])
})
