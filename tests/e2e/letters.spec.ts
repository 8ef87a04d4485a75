// Names in other scripts, as the audience gets them: each is set in a shipped typeface that has its letters, joined up and in its
// own direction. Held against the font files themselves, set by the browser alone.
import { PLAIN_FRAME } from '../../core/box/frame.ts'
import { newTextLayer } from '../../core/layers/text.ts'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import type { Page } from '@playwright/test'
import { BARE_SCENE } from '../../core/show/create.ts'
import { breakPlaces } from '../../engine/text/break-text.ts'
import { expect, openStudio, test } from './studio.ts'

const packages = path.resolve(import.meta.dirname, '../../node_modules/@fontsource-variable')

/** Names of people and of bees, the language, and the package that must have drawn them. */
const NAMES = [
  ['Croatian', 'Kovačić', 'bricolage-grotesque'],
  ['Vietnamese', 'Nguyễn', 'bricolage-grotesque'],
  ['Turkish', 'Işığı', 'bricolage-grotesque'],
  ['Greek', 'Μέλισσα', 'noto-sans'],
  ['Ukrainian', 'Бджола', 'noto-sans'],
  ['Hindi', 'मधुमक्खी', 'noto-sans'],
  ['Arabic', 'نحلة', 'noto-sans-arabic'],
  ['Hebrew', 'דבורה', 'noto-sans-hebrew'],
  ['Thai', 'ผึ้ง', 'noto-sans-thai'],
  ['Japanese', 'はちみつ', 'noto-sans-jp'],
  ['Korean', '꿀벌', 'noto-sans-kr'],
  ['Chinese', '蜜蜂', 'noto-sans-sc'],
] as const

const SIZE = 120
const BOX = { x: 140, y: 260, width: 1000, height: 200 }

/** The package's own style sheet: every file with the letters it holds. */
function filesOf(name: string): { readonly data: string; readonly range: string }[] {
  const css = readFileSync(path.join(packages, name, 'index.css'), 'utf8')
  return [...css.matchAll(/url\(\.\/(files\/[^)]+)\)[^;]*;\s*unicode-range: ([^;]+);/g)].map(([, file, range]) => ({
    data: readFileSync(path.join(packages, name, file!)).toString('base64'),
    range: range!,
  }))
}

/** Ink of the stage and of the same words set straight from the font files: how much of the one is the other. */
function overlapOf(page: Page, text: string, isRtl: boolean, files: readonly { readonly data: string; readonly range: string }[]): Promise<number> {
  return page.evaluate(
    async ({ text, isRtl, files, box, size }) => {
      const points = [...text].map((letter) => letter.codePointAt(0)!)
      const holds = (range: string) =>
        range.split(',').some((part) => {
          const [from, to = from] = part.trim().slice(2).split('-')
          return points.some((point) => point >= parseInt(from!, 16) && point <= parseInt(to!, 16))
        })
      // A name of its own each time: the browser may go on with what an earlier one of that name had.
      const family = `Reference ${performance.now()}`
      for (const { data, range } of files.filter((file) => holds(file.range))) {
        const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0))
        document.fonts.add(await new FontFace(family, bytes, { weight: '100 900', unicodeRange: range }).load())
      }
      const canvas = new OffscreenCanvas(1280, 720)
      const pen = canvas.getContext('2d')!
      pen.fillStyle = '#ffffff'
      pen.font = `700 ${size}px "${family}"`
      pen.direction = isRtl ? 'rtl' : 'ltr'
      pen.textAlign = 'left'
      pen.fillText(text, box.x, box.y + (box.height - size * 1.22) / 2 + size * 0.94)
      const stage = new OffscreenCanvas(1280, 720)
      const stagePen = stage.getContext('2d')!
      stagePen.drawImage(document.querySelector<HTMLCanvasElement>('[data-testid="stage"] canvas')!, 0, 0)
      const inkOf = (from: OffscreenCanvasRenderingContext2D) => {
        const { data } = from.getImageData(0, 0, 1280, 720)
        return Array.from({ length: 1280 * 720 }, (_, i) => (data[i * 4]! * data[i * 4 + 3]!) / 255 / 255)
      }
      const [ours, theirs] = [inkOf(stagePen), inkOf(pen)]
      for (const face of [...document.fonts]) if (face.family.includes(family)) document.fonts.delete(face)
      let both = 0
      let either = 0
      for (let i = 0; i < ours.length; i += 1) {
        both += Math.min(ours[i]!, theirs[i]!)
        either += Math.max(ours[i]!, theirs[i]!)
      }
      return either === 0 ? 0 : both / either
    },
    { text, isRtl, files, box: BOX, size: SIZE },
  )
}

test('names in twelve languages are set in shipped typefaces, pixel for pixel as the files have them', async ({ page, server }) => {
  const { show, revision, id } = await server.shows.get('demo-brood-frame')
  let count = 0
  const black = { id: 'black', kind: 'colour', name: 'Black', colour: '#000000', treatment: [] } as const
  const made = NAMES.map(([language, text]) => {
    const { layer, contents } = newTextLayer(language, text, show.canvas, () => `text-${(count += 1)}`)
    const block = { text, weight: 700, sizePx: SIZE, colour: '#ffffff' }
    return {
      contents: contents.map((content) => (content.kind === 'text' ? { ...content, text: { ...content.text, plate: null, blocks: [block] } } : content)),
      scene: { ...BARE_SCENE, id: `scene-${language}`, name: language, layers: [{ ...layer, placement: { ...layer.placement, ...BOX }, frame: PLAIN_FRAME }] },
    }
  })
  await server.shows.save(id, revision, {
    ...show,
    inputs: [...show.inputs, black],
    contents: made.flatMap(({ contents }) => contents),
    scenes: made.map(({ scene }) => scene),
  })
  await openStudio(page, server)
  for (const [language, text, name] of NAMES) {
    await page.getByRole('complementary', { name: 'Scenes' }).getByRole('button', { name: language, exact: true }).click()
    const files = filesOf(name)
    const isRtl = language === 'Arabic' || language === 'Hebrew'
    await expect.poll(() => overlapOf(page, text, isRtl, files), { message: `${language}: ${text}`, timeout: 20_000 }).toBeGreaterThan(0.97)
  }
})

test('a long title wraps and grows its plate, keeps its size, and says when it is too small for a tile', async ({ page, server }) => {
  await openStudio(page, server)
  await page.locator('[data-layer="Class title"]').click()
  const title = async () => {
    const { show } = await server.shows.get('demo-brood-frame')
    return show.scenes[0]!.layers.find((layer) => layer.name === 'Class title')!
  }
  const before = (await title()).placement
  const line = page.getByRole('textbox', { name: 'Line 1' })
  await line.fill('Reading a brood frame by daylight, with a lamp, and what to write down about it before it is put back')
  await expect.poll(async () => (await title()).placement.height).toBeGreaterThan(before.height + 60)
  const grown = (await title()).placement
  // It grew upwards: its foot stays where it was.
  expect(grown.y + grown.height).toBeCloseTo(before.y + before.height, 0)
  expect(grown.width).toBe(before.width)
  await expect(page.getByText(/too small to read in a meeting tile/)).toHaveCount(0)
  await line.fill('Reading a brood frame')
  await expect.poll(async () => (await title()).placement).toEqual(before)
  // Letters that have to be fetched are wider than what stood in for them: the box is measured again when they are there.
  await line.fill('Ana Kovač, Nguyễn Thị Mai and Ελένη Παπαδοπούλου read a brood frame by lamplight')
  await expect.poll(async () => (await title()).placement.height).toBeGreaterThan(before.height + 180)
  await expect(page.getByText(/too small to read in a meeting tile/)).toHaveCount(0)
  await line.fill('Reading a brood frame')
  await expect.poll(async () => (await title()).placement).toEqual(before)
  const size = page.getByRole('spinbutton', { name: 'Size' }).nth(1)
  await size.fill('14')
  await size.press('Enter')
  await expect(page.getByText('Line 2 is too small to read in a meeting tile.')).toBeVisible()
})

/** What a browser and Unicode Standard Annex 14 agree on. Browsers also break before French spaced marks, and not after most slashes. */
const PARAGRAPHS = [
  'One two three',
  'Reading (a brood frame), part 2!',
  'well-known state-of-the-art',
  '«Bonjour», dit-elle.',
  'Price 1,000.50 EUR — or 3/4',
  '“Quoted” text… and more',
  '養蜂家の夜の教室へ、ようこそ。「巣箱」を見る。',
  '你好，世界！（今天）',
  'สวัสดีครับผมชื่อนิด',
  'نحل العسل (مفيد)',
  'a  b',
  'bees🐝bees 👩‍🌾🏽 ok',
  '100 % of $5 and 20°',
  'non\u00a0breaking\u2011hyphen',
  'soft\u00adhyphen',
  'Zero\u200bwidth',
  '한국어 문장입니다.',
  'x=y+z;',
  'Dr. Smith’s [1] {2} <3>',
]

test('lines may end where a browser ends them', async ({ page }) => {
  await page.setContent('<div id="narrow" style="width:0;white-space:pre-wrap;font:16px sans-serif"></div>')
  for (const text of PARAGRAPHS) {
    const seen = await page.evaluate((words) => {
      const narrow = document.querySelector('#narrow')!
      narrow.textContent = words
      const range = document.createRange()
      const places: number[] = []
      let line: number | null = null
      for (let i = 0; i < words.length; i += 1) {
        range.setStart(narrow.firstChild!, i)
        range.setEnd(narrow.firstChild!, i + 1)
        const box = [...range.getClientRects()].at(-1)
        if (words[i] === ' ' || box === undefined || box.width === 0) continue
        if (line !== null && Math.abs(box.top - line) > 3) places.push(i)
        line = box.top
      }
      return [...places, words.length]
    }, text)
    const ours = breakPlaces(text).filter((place) => place === text.length || text[place] !== ' ')
    expect(ours, text).toEqual(seen)
  }
})
