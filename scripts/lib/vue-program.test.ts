import { mkdtempSync, mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type ts from 'typescript'
import { afterAll, beforeAll, expect, it } from 'vitest'
import vue from 'vue-eslint-parser'
import { componentParser } from './vue-program'

const root = mkdtempSync(join(tmpdir(), 'jadefell-components-'))
const component = (name: string, script: string) => {
  const filePath = join(root, 'web', `${name}.vue`)
  const text = `<template><p>{{ told + 1 }}</p></template>\n\n<script setup lang="ts">\n${script}\n</script>\n`
  return { filePath, text }
}
const FIRST = component('First', "import { half } from './half'\nconst told = half(3)")
const SECOND = component('Second', 'const told = Promise.resolve(2)')

beforeAll(() => {
  mkdirSync(join(root, 'web'))
  writeFileSync(join(root, 'web/tsconfig.json'), '{ "compilerOptions": { "strict": true, "types": [] } }')
  writeFileSync(join(root, 'web/half.ts'), 'export const half = (n: number): number => n / 2\n')
  for (const { filePath, text } of [FIRST, SECOND]) writeFileSync(filePath, text)
})
afterAll(() => rmSync(root, { recursive: true }))

it('checks the scripts of all components with one program, which knows their types', () => {
  const parser = componentParser(root, 'web')
  const parsed = ({ filePath, text }: typeof FIRST) => {
    const options = { parser, filePath, project: ['./web/tsconfig.json'], tsconfigRootDir: root }
    return vue.parseForESLint(text, { ...options, extraFileExtensions: ['.vue'], sourceType: 'module' })
  }
  const typeOf = ({ services }: ReturnType<typeof parsed>, { filePath }: typeof FIRST) => {
    const program = (services as unknown as { program: ts.Program }).program
    const source = program.getSourceFile(filePath)!
    const checker = program.getTypeChecker()
    const symbol = checker
      .getSymbolsInScope(source, 2 satisfies ts.SymbolFlags)
      .find((s) => s.name === 'told')!
    return { program, type: checker.typeToString(checker.getTypeOfSymbol(symbol)) }
  }
  const first = typeOf(parsed(FIRST), FIRST)
  const second = typeOf(parsed(SECOND), SECOND)
  expect([first.type, second.type]).toEqual(['number', 'Promise<number>'])
  expect(second.program).toBe(first.program)
  // Typed over since, as in an editor: it is checked as it stands now.
  const changed = { ...FIRST, text: FIRST.text.replace('half(3)', "'three'") }
  expect(typeOf(parsed(changed), changed).type).toBe('"three"')
})
