#!/usr/bin/env node
// Puts the models that find people and faces, and their runtime, beside the studio's files. The models ship without the metadata
// that the runtime asks for (how to normalise a picture), so copies with metadata are made.
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { Builder } from 'flatbuffers'

const rootDir = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '..')
const RUNTIME_FILES = ['vision_wasm_module_internal.js', 'vision_wasm_module_internal.wasm']
/** A picture's codes become (value − mean) / deviation: 0..1 for the one, −1..1 for the other. */
const MODELS = [
  {
    name: 'person',
    file: 'node_modules/@mediapipe/selfie_segmentation/selfie_segmentation_landscape.tflite',
    mean: 0,
    deviation: 255,
    outputs: ['mask'],
  },
  {
    name: 'face',
    file: 'node_modules/@mediapipe/face_detection/face_detection_short_range.tflite',
    mean: 127.5,
    deviation: 127.5,
    outputs: ['regressors', 'classificators'],
  },
]

/** Writes runtime and models into `folder`. */
export function buildPersonModel(folder) {
  mkdirSync(folder, { recursive: true })
  for (const file of RUNTIME_FILES) copyFileSync(path.join(rootDir, 'node_modules/@mediapipe/tasks-vision/wasm', file), path.join(folder, file))
  for (const model of MODELS) {
    const bytes = new Uint8Array(readFileSync(path.join(rootDir, model.file)))
    writeFileSync(path.join(folder, `${model.name}.tflite`), withMetadata(bytes, modelMetadata(model)))
  }
}

/** TFLite model metadata (schema metadata_schema.fbs): one RGB picture in, named pictures out. */
function modelMetadata({ name, mean, deviation, outputs: outputNames }) {
  const builder = new Builder(1024)
  const floats = (values) => {
    builder.startVector(4, values.length, 4)
    for (const value of values.toReversed()) builder.addFloat32(value)
    return builder.endVector()
  }
  const offsets = (list) => {
    builder.startVector(4, list.length, 4)
    for (const offset of list.toReversed()) builder.addOffset(offset)
    return builder.endVector()
  }
  /** A table of `size` fields, of which some are set. */
  const table = (size, fields) => {
    builder.startObject(size)
    for (const set of fields) set()
    return builder.endObject()
  }
  const means = floats([mean])
  const deviations = floats([deviation])
  const normalisation = table(2, [() => builder.addFieldOffset(0, means, 0), () => builder.addFieldOffset(1, deviations, 0)])
  const unit = table(2, [() => builder.addFieldInt8(0, 1, 0), () => builder.addFieldOffset(1, normalisation, 0)])
  const units = offsets([unit])
  const imageProperties = table(2, [() => builder.addFieldInt8(0, 1, 0)])
  const content = table(3, [() => builder.addFieldInt8(0, 2, 0), () => builder.addFieldOffset(1, imageProperties, 0)])
  const inputName = builder.createString('input')
  const input = table(7, [
    () => builder.addFieldOffset(0, inputName, 0),
    () => builder.addFieldOffset(3, content, 0),
    () => builder.addFieldOffset(4, units, 0),
  ])
  const outputTables = outputNames.map((each) => {
    const outputName = builder.createString(each)
    return table(7, [() => builder.addFieldOffset(0, outputName, 0)])
  })
  const inputs = offsets([input])
  const outputs = offsets(outputTables)
  const subgraph = table(10, [() => builder.addFieldOffset(2, inputs, 0), () => builder.addFieldOffset(3, outputs, 0)])
  const subgraphs = offsets([subgraph])
  const modelName = builder.createString(name)
  const version = builder.createString('1.0.0')
  const root = table(8, [
    () => builder.addFieldOffset(0, modelName, 0),
    () => builder.addFieldOffset(2, version, 0),
    () => builder.addFieldOffset(3, subgraphs, 0),
    () => builder.addFieldOffset(7, version, 0),
  ])
  builder.finish(root, 'M001')
  return builder.asUint8Array().slice()
}

const aligned = (value, step) => Math.ceil(value / step) * step

/**
 * A model with a metadata buffer added. The old file stays whole in the middle: a new root table in front refers
 * into it, and one more buffer and one metadata entry follow at the end. Offsets in flatbuffers are relative.
 */
function withMetadata(model, metadata) {
  const old = new DataView(model.buffer, model.byteOffset, model.byteLength)
  const oldRoot = old.getUint32(0, true)
  const oldTable = oldRoot - old.getInt32(oldRoot, true)
  const oldTableLength = old.getUint16(oldTable, true)
  const fieldAt = (index) => {
    const at = 4 + 2 * index
    const offset = at < oldTableLength ? old.getUint16(oldTable + at, true) : 0
    return offset === 0 ? 0 : oldRoot + offset
  }
  const target = (index) => {
    const at = fieldAt(index)
    return at === 0 ? 0 : at + old.getUint32(at, true)
  }
  const versionField = fieldAt(0)
  const version = versionField === 0 ? 3 : old.getUint32(versionField, true)
  const [operators, subgraphs, description, buffers, metadataBuffers, signatures] = [1, 2, 3, 4, 5, 7].map(target)
  const bufferCount = old.getUint32(buffers, true)

  const VTABLE = 8
  const ROOT = 28
  const bufferList = 64
  const metadataList = bufferList + 4 + 4 * (bufferCount + 1)
  const headEnd = aligned(metadataList + 8, 16)
  const tail = headEnd + aligned(model.length, 16)
  const bufferTable = tail + 8
  const dataVector = tail + 28
  const payload = dataVector + 4
  const entryVtable = aligned(payload + metadata.length, 4)
  const entry = entryVtable + 8
  const nameString = entry + 12
  const NAME = 'TFLITE_METADATA'
  const bytes = new Uint8Array(aligned(nameString + 4 + NAME.length + 1, 16))
  const out = new DataView(bytes.buffer)
  const refer = (at, to) => out.setUint32(at, to - at, true)
  bytes.set(model, headEnd)

  out.setUint32(0, ROOT, true)
  bytes.set(
    [...'TFL3'].map((letter) => letter.charCodeAt(0)),
    4,
  )
  out.setUint16(VTABLE, 20, true)
  out.setUint16(VTABLE + 2, 36, true)
  const slots = [4, 8, 12, description === 0 ? 0 : 16, 20, metadataBuffers === 0 ? 0 : 24, 28, signatures === 0 ? 0 : 32]
  slots.forEach((slot, i) => out.setUint16(VTABLE + 4 + 2 * i, slot, true))
  out.setInt32(ROOT, ROOT - VTABLE, true)
  out.setUint32(ROOT + 4, version, true)
  refer(ROOT + 8, headEnd + operators)
  refer(ROOT + 12, headEnd + subgraphs)
  if (description !== 0) refer(ROOT + 16, headEnd + description)
  refer(ROOT + 20, bufferList)
  if (metadataBuffers !== 0) refer(ROOT + 24, headEnd + metadataBuffers)
  refer(ROOT + 28, metadataList)
  if (signatures !== 0) refer(ROOT + 32, headEnd + signatures)

  out.setUint32(bufferList, bufferCount + 1, true)
  for (let i = 0; i < bufferCount; i += 1) {
    const at = buffers + 4 + 4 * i
    refer(bufferList + 4 + 4 * i, headEnd + at + old.getUint32(at, true))
  }
  refer(bufferList + 4 + 4 * bufferCount, bufferTable)
  out.setUint32(metadataList, 1, true)
  refer(metadataList + 4, entry)

  // The buffer: a table with one field, a vector of bytes.
  out.setUint16(tail, 6, true)
  out.setUint16(tail + 2, 8, true)
  out.setUint16(tail + 4, 4, true)
  out.setInt32(bufferTable, bufferTable - tail, true)
  refer(bufferTable + 4, dataVector)
  out.setUint32(dataVector, metadata.length, true)
  bytes.set(metadata, payload)
  // The metadata entry: its name and the number of the buffer.
  out.setUint16(entryVtable, 8, true)
  out.setUint16(entryVtable + 2, 12, true)
  out.setUint16(entryVtable + 4, 4, true)
  out.setUint16(entryVtable + 6, 8, true)
  out.setInt32(entry, entry - entryVtable, true)
  refer(entry + 4, nameString)
  out.setUint32(entry + 8, bufferCount, true)
  out.setUint32(nameString, NAME.length, true)
  for (let i = 0; i < NAME.length; i += 1) bytes[nameString + 4 + i] = NAME.charCodeAt(i)
  return bytes
}
