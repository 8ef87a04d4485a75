import VoiceWorker from './voice.worker.ts?worker&inline'
import type { MakeVoiceWorker } from './voice-receiver.ts'

/** Its code lies in the script that calls this: a meeting page loads nothing more. */
export const makeVoiceWorker: MakeVoiceWorker = () => new VoiceWorker()
