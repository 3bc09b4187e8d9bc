import { parseInstruments, type ParsedTable } from './parse-instruments'

/** Takes the bytes of a file, gives back its rows: 20,000 of them would hold up the page. */
self.onmessage = ({ data }: MessageEvent<ArrayBuffer>) => {
  const parsed: ParsedTable = parseInstruments(data)
  self.postMessage(parsed)
}
