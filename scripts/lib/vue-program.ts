// One type checker for all components: typescript-eslint by itself makes a new one for each .vue file, which is most of the time
// that linting takes. The scripts are taken out of the components once, as the parser of Vue hands them on, and checked together.
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import ts from 'typescript'
import { parser as typed } from 'typescript-eslint'
import vue from 'vue-eslint-parser'

type Parsed = ReturnType<typeof typed.parseForESLint>
/** With its options, which its own type leaves out. */
const parse = (code: string, options: object) =>
  (typed as { parseForESLint(code: string, options: object): Parsed }).parseForESLint(code, options)

interface Options {
  readonly filePath?: string
  /** Taken away by the parser of Vue where it hands on an expression of a template. */
  readonly project?: unknown
}

/**
 * A parser for the scripts of components. A component that is not, or no longer, as it was read when linting began is
 * checked by itself, as in an editor.
 */
export function componentParser(root: string, folder: string) {
  let program: ts.Program | undefined
  let scripts: ReadonlyMap<string, string> | undefined
  return {
    meta: { name: 'component-parser' },
    parseForESLint(code: string, options: Options) {
      const path = options.filePath ?? ''
      if (options.project === undefined) return parse(code, options)
      scripts ??= scriptsOf(join(root, folder))
      if (scripts.get(path) !== code) return parse(code, options)
      program ??= programOf(join(root, folder, 'tsconfig.json'), scripts)
      return parse(code, { ...options, project: undefined, programs: [program] })
    },
  }
}

/** By the path of its component. */
function scriptsOf(folder: string): Map<string, string> {
  const scripts = new Map<string, string>()
  const parser = {
    parseForESLint(code: string, options: Options) {
      if (options.project !== undefined) scripts.set(options.filePath ?? '', code)
      return parse(code, { ...options, project: undefined })
    },
  }
  for (const name of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
    if (!name.endsWith('.vue')) continue
    const filePath = join(folder, name)
    const text = readFileSync(filePath, 'utf8')
    vue.parseForESLint(text, {
      parser,
      filePath,
      project: 'any',
      sourceType: 'module',
      ecmaVersion: 'latest',
    })
  }
  return scripts
}

function programOf(configPath: string, scripts: ReadonlyMap<string, string>): ts.Program {
  const read = ts.getParsedCommandLineOfConfigFile(
    configPath,
    {},
    { ...ts.sys, onUnRecoverableConfigFileDiagnostic: () => {} },
  )
  if (!read) throw new Error(`${configPath} cannot be read`)
  // Of TypeScript's own, and not in its types: files of another ending are taken too.
  const options = { ...read.options, allowNonTsExtensions: true }
  const host = ts.createCompilerHost(options, true)
  const usual = host.getSourceFile.bind(host)
  host.getSourceFile = (path, language, ...rest) => {
    const script = scripts.get(path)
    return script === undefined
      ? usual(path, language, ...rest)
      : ts.createSourceFile(path, script, language, true, ts.ScriptKind.TS)
  }
  return ts.createProgram([...read.fileNames, ...scripts.keys()], options, host)
}
