/// <reference lib="webworker" />
// Finds faces in single pictures, when somebody asks; everything it loads comes from this machine.
import { FaceDetector, FilesetResolver } from '@mediapipe/tasks-vision'
import type { FromFace, ToFace } from './face-protocol.ts'

declare const self: DedicatedWorkerGlobalScope

/** Less sure than this it is none. */
const LEAST_CONFIDENCE = 0.5

let detector: Promise<FaceDetector> | null = null

self.onmessage = ({ data }: MessageEvent<ToFace>) => {
  find(data).then(
    (answer) => post(answer),
    (error: unknown) => post({ requestId: data.requestId, reason: error instanceof Error ? error.message : String(error) }),
  )
}

async function find({ requestId, runtimeUrl, modelUrl, data, widthPx, heightPx }: ToFace): Promise<FromFace> {
  // What failed to load may load the next time.
  detector ??= load(runtimeUrl, modelUrl).catch((error: unknown) => {
    detector = null
    throw error
  })
  const { detections } = (await detector).detect(new ImageData(data, widthPx, heightPx))
  const faces = detections.flatMap(({ boundingBox: box }) =>
    box === undefined ? [] : [{ x: box.originX / widthPx, y: box.originY / heightPx, width: box.width / widthPx, height: box.height / heightPx }],
  )
  return { requestId, faces: faces.toSorted((one, other) => other.width * other.height - one.width * one.height) }
}

async function load(runtimeUrl: string, modelUrl: string): Promise<FaceDetector> {
  const runtime = await FilesetResolver.forVisionTasks(runtimeUrl, true)
  return FaceDetector.createFromOptions(runtime, {
    baseOptions: { modelAssetPath: modelUrl, delegate: 'CPU' },
    runningMode: 'IMAGE',
    minDetectionConfidence: LEAST_CONFIDENCE,
  })
}

function post(message: FromFace): void {
  self.postMessage(message)
}
