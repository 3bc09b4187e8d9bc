import { readdirSync, readFileSync } from 'node:fs'
import ts from 'typescript'
import { parse } from 'vue/compiler-sfc'

/** A sentence as it stands in the code: what is put in when it is said stands for one short word. */
export interface WrittenSentence {
  readonly file: string
  readonly text: string
}

/** A number, a note, a name. */
const PUT_IN = '4'
/** Shorter ones are labels, ids and classes. */
const LEAST_WORDS = 4
const SEGMENTS = new Intl.Segmenter('en', { granularity: 'sentence' })

export function wordsOf(sentence: string): string[] {
  return sentence.split(/\s+/).filter((word) => /[\p{L}\d]/u.test(word))
}

/**
 * Every sentence that a teacher reads: of the word files, of what the pages have written in themselves, and of what the server
 * answers where it refuses.
 */
export function writtenSentences(): WrittenSentence[] {
  const words = filesOf('web/words', '.ts')
    .filter((file) => !/test|sentences/.test(file))
    .flatMap(readStrings)
  const answers = ['contracts', 'server/features', 'server/http']
    .flatMap((folder) => filesOf(folder, '.ts'))
    .filter((file) => !/test|openapi/.test(file))
    .flatMap(readStrings)
    // Beside SQL, patterns and names: what begins and ends as a sentence does.
    .filter(({ text }) => /^[\p{Lu}\d].*[.!?]$/su.test(text))
  const pages = filesOf('web', '.vue').flatMap((file) =>
    textsOf(readFileSync(file, 'utf8')).map((text) => ({ file, text })),
  )
  return [...words, ...answers, ...pages].flatMap(({ file, text }) =>
    [...SEGMENTS.segment(text)]
      .map(({ segment }) => ({ file, text: segment.replace(/\s+/g, ' ').trim() }))
      .filter((sentence) => wordsOf(sentence.text).length >= LEAST_WORDS),
  )
}

function filesOf(folder: string, ending: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .filter((path) => path.endsWith(ending))
    .map((path) => `${folder}/${path}`)
}

function readStrings(file: string): WrittenSentence[] {
  return stringsOf(file, readFileSync(file, 'utf8')).map((text) => ({ file, text }))
}

/** What is written in quotes, unless it names something: an id, a path, a class. */
function stringsOf(file: string, source: string): string[] {
  const found: string[] = []
  const visit = (node: ts.Node) => {
    if (ts.isImportDeclaration(node)) return
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node)) found.push(node.text)
    else if (ts.isTemplateExpression(node))
      found.push(node.head.text + node.templateSpans.map(({ literal }) => PUT_IN + literal.text).join(''))
    ts.forEachChild(node, visit)
  }
  visit(ts.createSourceFile(file, source, ts.ScriptTarget.Latest))
  return found
}

/** Elements whose words are read on their own. */
const BLOCKS = /^(p|li|dd|dt|td|th|h1|h2|h3|label|figcaption|legend|button|ElButton|ElCheckbox)$/
/** Of Vue’s tree. */
const [ELEMENT, TEXT, INTERPOLATION] = [1, 2, 5]

interface TemplateNode {
  readonly type: number
  readonly tag?: string
  readonly content?: unknown
  readonly children?: readonly TemplateNode[]
}

function textsOf(source: string): string[] {
  const root = parse(source).descriptor.template?.ast as TemplateNode | undefined
  const found: string[] = []
  const flat = (node: TemplateNode): string => {
    if (node.type === TEXT) return String(node.content)
    if (node.type === INTERPOLATION) return PUT_IN
    // A key that is shown belongs to no sentence.
    if (node.type === ELEMENT && /^(KeyHint|kbd)$/.test(node.tag ?? '')) return ''
    // A button inside a line is read by itself.
    if (node.type === ELEMENT && BLOCKS.test(node.tag ?? '')) return ' '
    return (node.children ?? []).map(flat).join('')
  }
  const visit = (node: TemplateNode) => {
    if (node.type === ELEMENT && BLOCKS.test(node.tag ?? ''))
      found.push((node.children ?? []).map(flat).join(''))
    for (const child of node.children ?? []) visit(child)
  }
  if (root) visit(root)
  return found
}
