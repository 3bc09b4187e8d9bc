export { PAPERS } from './page'
export type { Page, PageItem, PaperId } from './page'
export { pageSvg } from './svg'
export { fittedLine, fittedLines, textWidth } from './text-width'
