import { findAlternatives, type AlternativesOrder } from './alternatives'

/** Stands in for the worker where there is none: answers at once, after whoever asked has gone on. */
export class AlternativesAtOnce {
  onmessage: ((event: { data: unknown }) => void) | null = null
  postMessage(order: AlternativesOrder) {
    queueMicrotask(() => this.onmessage?.({ data: findAlternatives(order) }))
  }
  terminate() {
    this.onmessage = null
  }
}
