import workletUrl from '../../engine/sound/microphone.worklet.ts?worker&url'
import { SOUND_RATE } from '../../core/sound/voice-chunk.ts'
import { runStandin } from '../inputs/standin-threads.ts'
import type { SoundSource } from '../../engine/live/microphone-manager.ts'

const SEED = 7

/** Takes a microphone's stream apart into chunks, in the audio thread. A device of another rate is resampled by the browser. */
export async function openMicrophone(stream: MediaStream): Promise<SoundSource> {
  const context = new AudioContext({ sampleRate: SOUND_RATE, latencyHint: 'interactive' })
  try {
    await context.audioWorklet.addModule(workletUrl)
    const source = context.createMediaStreamSource(stream)
    const node = new AudioWorkletNode(context, 'green-room-microphone', { numberOfInputs: 1, numberOfOutputs: 1 })
    const { port1, port2 } = new MessageChannel()
    node.port.postMessage({ out: port1 }, [port1])
    // What it lets through is silence; without an end nothing would pull.
    source.connect(node).connect(context.destination)
    // A page that already captures needs no gesture for this.
    void context.resume()
    return { port: port2, stop: () => void context.close() }
  } catch (error) {
    await context.close()
    throw error
  }
}

/** Starts the stand-in microphone on a thread of its own. */
export function openStandinMicrophone(): SoundSource {
  const worker = new Worker(new URL('../../standins/microphone/microphone.worker.ts', import.meta.url), { type: 'module', name: 'stand-in microphone' })
  return runStandin(worker, { seed: SEED })
}
