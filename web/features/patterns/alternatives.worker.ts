import { findAlternatives, type AlternativesOrder } from './alternatives'

self.onmessage = ({ data }: MessageEvent<AlternativesOrder>) => self.postMessage(findAlternatives(data))
