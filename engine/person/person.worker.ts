/// <reference lib="webworker" />
// Finds the person in small pictures with a segmentation model; everything it loads comes from this machine.
import { FilesetResolver, ImageSegmenter } from '@mediapipe/tasks-vision'
import { PERSON_HEIGHT_PX, PERSON_WIDTH_PX, type FromPerson, type ToPerson } from './person-protocol.ts'
import { steadyMask } from './steady-mask.ts'

declare const self: DedicatedWorkerGlobalScope

let segmenter: ImageSegmenter | null = null
const waiting: Extract<ToPerson, { type: 'look' }>[] = []
const steady = new Map<string, Float32Array>()
/** The model wants times that only grow. */
let timeMs = 0

self.onmessage = ({ data }: MessageEvent<ToPerson>) => {
  if (data.type === 'start') {
    start(data.files).catch((error: unknown) => post({ type: 'failed', reason: error instanceof Error ? error.message : String(error) }))
  } else if (segmenter === null) waiting.push(data)
  else lookOrSay(segmenter, data)
}

/** Every look is answered, also one that fails: who asked waits for it. */
function lookOrSay(model: ImageSegmenter, task: Extract<ToPerson, { type: 'look' }>): void {
  try {
    look(model, task)
  } catch (error) {
    post({ type: 'lookFailed', sourceId: task.sourceId, reason: error instanceof Error ? error.message : String(error) })
  }
}

async function start(files: Extract<ToPerson, { type: 'start' }>['files']): Promise<void> {
  // The second argument asks for the runtime that loads as a module, as workers like this one need.
  const runtime = await FilesetResolver.forVisionTasks(files.runtimeUrl, true)
  segmenter = await ImageSegmenter.createFromOptions(runtime, {
    baseOptions: { modelAssetPath: files.modelUrl, delegate: 'CPU' },
    runningMode: 'VIDEO',
    outputCategoryMask: false,
    outputConfidenceMasks: true,
  })
  for (const early of waiting.splice(0)) lookOrSay(segmenter, early)
}

function look(model: ImageSegmenter, { sourceId, data }: Extract<ToPerson, { type: 'look' }>): void {
  timeMs += 1
  model.segmentForVideo(new ImageData(data, PERSON_WIDTH_PX, PERSON_HEIGHT_PX), timeMs, (result) => {
    const newest = result.confidenceMasks?.at(-1)?.getAsFloat32Array()
    if (newest === undefined) throw new Error('the model gave no mask')
    const known = steady.get(sourceId)
    if (known === undefined) steady.set(sourceId, Float32Array.from(newest))
    else steadyMask(known, newest)
    const mask = Float32Array.from(steady.get(sourceId)!)
    post({ type: 'mask', sourceId, mask }, [mask.buffer])
  })
}

function post(message: FromPerson, transfer: Transferable[] = []): void {
  self.postMessage(message, transfer)
}
