/** Starts the thread that draws words, forms and covers. */
export function openRasterWorker(): Worker {
  return new Worker(new URL('./raster.worker.ts', import.meta.url), { type: 'module', name: 'rasters' })
}
