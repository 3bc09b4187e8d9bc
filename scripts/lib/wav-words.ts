import type { WavFault } from '../../core'

/** What is wrong with a WAV file, and what to do. */
export function wavFaultWords(fault: WavFault): string {
  switch (fault.code) {
    case 'empty':
      return 'the file is empty. Record it anew, or choose another one.'
    case 'not_wav':
      return 'this is no WAV file. Save the recording as WAV (PCM) first.'
    case 'no_format':
      return 'its header does not say how the samples are written. Save it as WAV anew.'
    case 'no_samples':
      return 'its header is sound, but no samples follow. The recording was cut off: record it anew.'
    case 'bad_format':
      return `its header contradicts itself (${fault.channels} channels of ${fault.bits} bits, but ${fault.blockBytes} bytes together). Save it as WAV anew.`
    case 'unread_encoding':
      return `its samples are written in a way that is not read (format ${fault.formatTag}, ${fault.bits} bits). Save it as PCM with 16 or 24 bits.`
    case 'rate_out_of_range':
      return `a sampling rate of ${fault.sampleRateHz} Hz is not read. Save it with 44100 or 48000 Hz.`
    case 'not_a_number':
      return `sample ${fault.sample} is not a number. The file is damaged from there on: save it as PCM with 16 or 24 bits.`
  }
}
