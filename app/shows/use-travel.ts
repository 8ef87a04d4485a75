// Shows that leave as one archive and come back from one.
import { useI18n } from 'vue-i18n'
import { toast } from 'vue-sonner'
import { api, type StoredShow } from '../show/api.ts'
import { errorWords } from '../show/error-words.ts'

export const PACKAGE_ENDING = /\.zip$/i

export function useTravel(onImported: (stored: StoredShow) => void) {
  const { t } = useI18n()

  /** Has the browser save a show with everything that it needs. */
  function exportShow(id: string): void {
    const link = document.createElement('a')
    link.href = api.packageUrl(id)
    link.download = ''
    link.click()
  }

  /** Makes shows of archives, one after the other. Who cancels one cancels those behind it too. */
  async function importShows(files: readonly File[]): Promise<void> {
    const cancelling = new AbortController()
    for (const file of files) {
      const about = (percent: number) => ({
        description: percent < 100 ? t('build.sent', { percent }) : t('shows.unpacking'),
        action: { label: t('build.cancelAdding'), onClick: () => cancelling.abort() },
      })
      const progress = toast.loading(t('shows.importing', { name: file.name }), about(0))
      let percent = 0
      const onShare = (share: number) => {
        // In steps, since each is read aloud.
        const now = Math.floor(share * 10) * 10
        if (now === percent) return
        percent = now
        toast.loading(t('shows.importing', { name: file.name }), { id: progress, ...about(now) })
      }
      try {
        const stored = await api.importShow(file, { onShare, signal: cancelling.signal })
        toast.success(t('shows.imported', { name: stored.show.name }))
        onImported(stored)
      } catch (error) {
        if (cancelling.signal.aborted) return
        toast.error(t('shows.importFailed', { name: file.name, why: errorWords(error) }), { duration: 20_000 })
      } finally {
        toast.dismiss(progress)
      }
    }
  }

  /** Opens the browser's chooser of files. */
  function chooseFiles(): void {
    const field = document.createElement('input')
    field.type = 'file'
    field.accept = '.zip,application/zip'
    field.multiple = true
    field.onchange = () => void importShows([...(field.files ?? [])])
    field.click()
  }

  return { exportShow, importShows, chooseFiles }
}
