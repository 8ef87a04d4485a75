// Presets: named chains kept by the server, as files, and from camera to camera.
import { shallowRef } from 'vue'
import { useI18n } from 'vue-i18n'
import { errorWords } from '../show/error-words.ts'
import { toast } from 'vue-sonner'
import { ZodError } from 'zod'
import { applyChain, treatmentAt } from '../../core/show/edits.ts'
import { readChain } from '../../core/show/migrate.ts'
import { issueLines, type ChainFile } from '../../core/show/schema.ts'
import type { Step } from '../../core/show/show.ts'
import { api, type Preset, type UnreadableNamed } from '../show/api.ts'
import { makeId } from '../show/make-id.ts'
import { useShowStore } from '../show/show.store.ts'
import { useBenchStore } from './bench.store.ts'

export function usePresets() {
  const { t } = useI18n()
  const showStore = useShowStore()
  const bench = useBenchStore()
  const presets = shallowRef<readonly Preset[]>([])
  const unreadable = shallowRef<readonly UnreadableNamed[]>([])

  const chainNow = (): readonly Step[] => (showStore.show === null ? [] : treatmentAt(showStore.show, bench.home))

  async function attempt<T>(run: () => Promise<T>): Promise<T | null> {
    try {
      return await run()
    } catch (error) {
      toast.error(reasonOf(error), { duration: 12_000 })
      return null
    }
  }

  function reasonOf(error: unknown): string {
    if (error instanceof ZodError) return `${t('presets.refused')} ${issueLines(error)[0] ?? ''}`
    return error instanceof SyntaxError ? t('presets.notJson') : errorWords(error)
  }

  async function load(): Promise<void> {
    const listed = await attempt(api.listPresets)
    presets.value = listed?.presets ?? []
    unreadable.value = listed?.unreadable ?? []
  }

  async function save(name: string): Promise<void> {
    const saved = await attempt(() => api.savePreset(name, fileOf(name)))
    if (saved === null) return
    toast(t('presets.saved', { name }))
    await load()
  }

  async function remove(preset: { readonly id: string }): Promise<void> {
    await attempt(() => api.deletePreset(preset.id))
    await load()
  }

  function apply(steps: readonly Step[], name: string): void {
    const { home } = bench
    showStore.edit(t('presets.applied', { name }), (show) => applyChain(show, home, steps, makeId))
  }

  function fileOf(name: string): ChainFile {
    return { format: 'green-room-chain', version: 2, name, steps: [...chainNow()] }
  }

  /** Saves the chain as a file of this computer. */
  function exportFile(name: string): void {
    const url = URL.createObjectURL(new Blob([`${JSON.stringify(fileOf(name), null, 2)}\n`], { type: 'application/json' }))
    const link = document.createElement('a')
    link.href = url
    link.download = `${name.toLowerCase().replaceAll(/[^a-z0-9]+/g, '-')}.chain.json`
    link.click()
    URL.revokeObjectURL(url)
  }

  async function importFile(file: File): Promise<void> {
    const chain = await attempt(async () => readChain(JSON.parse(await file.text())))
    if (chain !== null) apply(chain.steps, chain.name ?? file.name)
  }

  /** Gives another input a copy of the chain. */
  function copyTo(inputId: string, name: string): void {
    const steps = chainNow()
    if (showStore.edit(t('presets.applied', { name }), (show) => applyChain(show, { type: 'input', inputId }, steps, makeId)))
      toast(t('presets.copied', { name }))
  }

  return { presets, unreadable, load, save, remove, apply, exportFile, importFile, copyTo }
}
