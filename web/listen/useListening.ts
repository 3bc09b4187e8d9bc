import { onScopeDispose } from 'vue'
import type { HeardWholeTake } from '#core'
import { goneSentence, listenFaultSentence, microphoneSentence, unheardSentence } from '../words/listening'
import ListenWorker from './listen.worker?worker'
import type { ListenFault, ListenOrder, ListenReport, StudentOrder } from './messages'
import { useHearing, type HeardSource } from './useHearing'
import { decodeFile, openMicrophone, playAloud, type SoundSource } from './sources'

/** What listening stands on: the browser’s own, or what a test puts in its place. */
export interface ListenParts {
  newWorker(): Pick<Worker, 'postMessage' | 'terminate'> & {
    onmessage: ((event: MessageEvent<ListenReport>) => void) | null
    onerror: ((event: ErrorEvent) => void) | null
  }
  readonly openMicrophone: typeof openMicrophone
  readonly playAloud: typeof playAloud
  readonly decodeFile: typeof decodeFile
}

const BROWSER: ListenParts = { newWorker: () => new ListenWorker(), openMicrophone, playAloud, decodeFile }

/** A take is over after so long a silence. */
const SILENCE_S = 3
/** A browser decodes a file at once: an hour of what phones record. */
const MOST_DECODED_BYTES = 60_000_000
/** The rate at which a simulated student is made. */
const STUDENT_RATE_HZ = 44_100

/**
 * Listens to one take, by microphone, of a recording or of a simulated student, in a worker: the page only hears of the notes.
 * `onTake` is told once, when the take is over.
 */
export function useListening(
  onTake: (take: HeardWholeTake, source: HeardSource) => void,
  parts: ListenParts = BROWSER,
) {
  const hearing = useHearing()
  const { phase, source, notes, progress, fault, sound } = hearing.shown
  let worker: ReturnType<ListenParts['newWorker']> | undefined
  let feed: SoundSource | undefined
  /** Another way to hear a recording that the first one does not know. */
  let otherwise: (() => void) | undefined
  /** Counts beginnings: what an earlier one still says is not listened to. */
  let newest = 0

  function begin(of: HeardSource): number {
    leave()
    hearing.begin(of)
    const own = ++newest
    worker = parts.newWorker()
    worker.onmessage = ({ data }) => own === newest && hearOf(data)
    worker.onerror = (event) => own === newest && fail(event.message || 'the listening stopped')
    return own
  }

  function order(message: ListenOrder, transfer: Transferable[] = []) {
    worker?.postMessage(message, transfer)
  }

  function hearOf(report: ListenReport) {
    switch (report.kind) {
      case 'news':
        hearing.show(report.news)
        break
      case 'progress':
        progress.value = report.part
        break
      case 'sound':
        void sing(report.samples)
        break
      case 'over': {
        notes.value = report.take.notes
        sound.value = report.sound
        if (report.unheardS) fault.value = unheardSentence(report.unheardS)
        const of = source.value
        leave()
        onTake(report.take, of)
        break
      }
      case 'failed':
        if (report.fault.code === 'no_sound_file' && otherwise) otherwise()
        else refuse(report.fault)
    }
  }

  function take(up: SoundSource, silenceS: number, droneHz?: number) {
    feed = up
    phase.value = 'waiting'
    order({ kind: 'begin', sampleRateHz: up.sampleRateHz, silenceS, port: up.port, droneHz }, [up.port])
  }

  function fail(message: string) {
    refuse({ code: 'broken', message })
  }

  function refuse(why: ListenFault) {
    fault.value = listenFaultSentence(why)
    leave()
  }

  /** Ends whatever goes on; what was heard stays in sight. */
  function leave() {
    newest++
    otherwise = undefined
    feed?.close()
    feed = undefined
    worker?.terminate()
    worker = undefined
    hearing.end()
  }

  /** `droneHz`: a tone that sounds in the player's headphones meanwhile. */
  async function listen(deviceId = '', droneHz?: number) {
    const own = begin('microphone')
    try {
      const up = await parts.openMicrophone(deviceId, {
        onGone(reason) {
          if (own !== newest) return
          fault.value = goneSentence(reason)
          stop()
        },
      })
      if (own !== newest) return up.close()
      take(up, SILENCE_S, droneHz)
    } catch (error) {
      if (own !== newest) return
      fault.value = microphoneSentence(error)
      leave()
    }
  }

  async function hear(file: Blob) {
    const own = begin('recording')
    phase.value = 'hearing'
    const isWav = (await file.slice(0, 4).text()) === 'RIFF'
    if (own !== newest) return
    if (!isWav) return decode(file, own)
    // Compressed WAV is known to browsers only.
    otherwise = () => void decode(file, own)
    order({ kind: 'file', file })
  }

  async function decode(file: Blob, own: number) {
    otherwise = undefined
    if (file.size > MOST_DECODED_BYTES) return refuse({ code: 'too_large' })
    try {
      const { samples, sampleRateHz } = await parts.decodeFile(await file.arrayBuffer())
      if (own === newest) order({ kind: 'samples', samples, sampleRateHz }, [samples.buffer as ArrayBuffer])
    } catch {
      if (own === newest) refuse({ code: 'no_sound_file' })
    }
  }

  let loudness = 0
  function play(student: Omit<StudentOrder, 'sampleRateHz'>, loud: number) {
    begin('simulated')
    loudness = loud
    // Plain data crosses to the worker; what Vue wraps does not.
    order({
      kind: 'student',
      order: JSON.parse(JSON.stringify({ ...student, sampleRateHz: STUDENT_RATE_HZ })) as StudentOrder,
    })
  }

  async function sing(samples: Float32Array<ArrayBuffer>) {
    const own = newest
    try {
      const up = await parts.playAloud(samples, STUDENT_RATE_HZ, loudness)
      if (own !== newest) return up.close()
      // The student is not waited for as a child is: half a second after the last note it is over.
      take(up, 0.6)
    } catch (error) {
      if (own === newest) fail(error instanceof Error ? error.message : 'there is no loudspeaker')
    }
  }

  /** Ends the take now, with the note that sounds; before the first note it is given up. */
  function stop() {
    if (phase.value === 'playing') order({ kind: 'end' })
    else leave()
  }

  onScopeDispose(leave)
  return { ...hearing.shown, listen, hear, play, stop }
}

export type Listening = ReturnType<typeof useListening>
