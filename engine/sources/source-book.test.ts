import { expect, it, vi } from 'vitest'
import { testShow } from '../../tests/support/shows.ts'
import { SourceBook } from './source-book.ts'

it('keeps one picture of a colour that is dragged, not one of each colour that it had', () => {
  const never = () => Promise.reject(new Error('nothing is loaded or drawn here'))
  const book = new SourceBook(never, { make: never }, { onChange: vi.fn(), onAssetFailed: () => undefined })
  for (let i = 0; i < 300; i += 1) {
    const colour = `#${i.toString(16).padStart(6, '0')}`
    book.follow({ ...testShow(), inputs: [{ id: 'wall', kind: 'colour', name: 'Wall', colour, treatment: [] }] })
  }
  expect([...book.frames.keys()]).toEqual(['colour:#00012b'])
  expect([...book.infos.keys()]).toEqual(['colour:#00012b'])
})
