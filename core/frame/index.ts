export { frameWidthMm } from './width'
