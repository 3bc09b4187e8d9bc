import captureUrl from './capture.worklet?worker&url'

/** Sound on its way to the listening worker, through the browser's audio thread. */
export interface SoundSource {
  readonly sampleRateHz: number
  /** Where the worker takes the sound up. */
  readonly port: MessagePort
  close(): void
}

/** Why a microphone that was in use gives nothing more. */
export type GoneReason =
  /** It was unplugged, or its permission was taken back. */
  | 'unplugged'
  /** The browser has silenced it: the page was put aside, or another program took it. */
  | 'silenced'
  /** It works at another sampling rate by now: what comes is not what came before. */
  | 'rate'

export interface SourceEvents {
  onGone(reason: GoneReason): void
}

/** The rate at which a microphone works, where the browser tells it. */
const rateOf = (stream: MediaStream) => stream.getAudioTracks()[0]?.getSettings?.().sampleRate

async function captured(
  context: AudioContext,
  connect: (capture: AudioWorkletNode) => () => void,
): Promise<SoundSource> {
  await context.audioWorklet.addModule(captureUrl)
  const capture = new AudioWorkletNode(context, 'capture', { numberOfOutputs: 1 })
  const { port1, port2 } = new MessageChannel()
  capture.port.postMessage(port1, [port1])
  // Without a way to the loudspeaker a node is not asked to work; what it gives on is silence.
  capture.connect(context.destination)
  const disconnect = connect(capture)
  await context.resume()
  return {
    sampleRateHz: context.sampleRate,
    port: port2,
    close() {
      disconnect()
      capture.disconnect()
      void context.close()
    },
  }
}

/**
 * The microphone as it is: what browsers do to speech (echo cancellation, noise suppression, gain control) lets a held tone
 * die away. Throws what the browser says where there is none or it is refused.
 */
export async function openMicrophone(deviceId: string, events: SourceEvents): Promise<SoundSource> {
  // Where a page is not secure a browser has no such thing at all, whatever its types say.
  if (!('mediaDevices' in navigator))
    throw new DOMException('no microphone for this page', 'NotSupportedError')
  const stream = await navigator.mediaDevices.getUserMedia({
    audio: {
      echoCancellation: false,
      noiseSuppression: false,
      autoGainControl: false,
      ...(deviceId === '' ? {} : { deviceId: { exact: deviceId } }),
    },
  })
  const context = new AudioContext()
  const began = rateOf(stream)
  const onDevices = () => rateOf(stream) !== began && events.onGone('rate')
  for (const track of stream.getTracks()) {
    track.onended = () => events.onGone('unplugged')
    track.onmute = () => events.onGone('silenced')
  }
  return captured(context, (capture) => {
    const source = context.createMediaStreamSource(stream)
    source.connect(capture)
    // A tablet that puts the page aside interrupts the sound.
    context.onstatechange = () => context.state !== 'running' && events.onGone('silenced')
    navigator.mediaDevices.addEventListener('devicechange', onDevices)
    return () => {
      context.onstatechange = null
      navigator.mediaDevices.removeEventListener('devicechange', onDevices)
      for (const track of stream.getTracks()) {
        track.onended = null
        track.onmute = null
        track.stop()
      }
      source.disconnect()
    }
  })
}

/** A sound played aloud, heard as it plays: how a simulated student comes to the ear. */
export async function playAloud(
  samples: Float32Array<ArrayBuffer>,
  sampleRateHz: number,
  loudness: number,
): Promise<SoundSource> {
  const context = new AudioContext({ sampleRate: sampleRateHz })
  return captured(context, (capture) => {
    const buffer = context.createBuffer(1, samples.length, sampleRateHz)
    buffer.copyToChannel(samples, 0)
    const source = context.createBufferSource()
    source.buffer = buffer
    const gain = context.createGain()
    gain.gain.value = loudness
    source.connect(capture)
    source.connect(gain).connect(context.destination)
    source.start()
    return () => {
      source.stop()
      source.disconnect()
    }
  })
}

/** A file in a format that the browser knows, its channels mixed to one. */
export async function decodeFile(
  bytes: ArrayBuffer,
): Promise<{ readonly samples: Float32Array; readonly sampleRateHz: number }> {
  const context = new OfflineAudioContext(1, 1, 44_100)
  const buffer = await context.decodeAudioData(bytes)
  const samples = new Float32Array(buffer.length)
  for (let channel = 0; channel < buffer.numberOfChannels; channel++) {
    const data = buffer.getChannelData(channel)
    for (let i = 0; i < samples.length; i++) samples[i]! += data[i]! / buffer.numberOfChannels
  }
  return { samples, sampleRateHz: buffer.sampleRate }
}
