import { declareValuePlugin, PluginKind } from '@stryker-mutator/api/plugin'

/**
 * Which statements `npm run mutants` changes: one of `MUTANTS_OF` (6 unless said; 1 is all of them, a night's work on two cores), drawn
 * by where they stand in their file. The same source gives the same sample.
 */
const OF = Number(process.env['MUTANTS_OF'] ?? 6)
/** Knuth's multiplicative hash (The Art of Computer Programming 3, § 6.4): neighbours are drawn independently. */
const KNUTH = 2654435761

export const strykerPlugins = [
  declareValuePlugin(PluginKind.Ignore, 'sample', {
    shouldIgnore(path) {
      if (!isUnit(path)) return undefined
      const drawn = (Math.imul(path.node.start, KNUTH) >>> 0) / 2 ** 32
      return drawn * OF < 1 ? undefined : 'not drawn'
    },
  }),
]

/** The smallest thing that is drawn or not: a statement with none inside, what an `if` asks, what an arrow returns. */
function isUnit(path) {
  if (path.key === 'test' && path.parentPath.isStatement()) return true
  if (path.key === 'body' && path.parentPath.isArrowFunctionExpression() && path.isExpression())
    return holdsNone(path)
  return path.isStatement() && !path.isBlockStatement() && holdsNone(path)
}

function holdsNone(path) {
  let holds = false
  path.traverse({ Statement: (inner) => ((holds = true), inner.stop()) })
  return !holds
}
