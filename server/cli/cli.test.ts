import { newInputLayer } from '../../core/layers/input.ts'
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync, mkdirSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { newDeck } from '../../core/inputs/deck.ts'
import { afterAll, describe, expect, it } from 'vitest'
import { demoPictures } from '../../demo/seed.ts'
import { BARE_SCENE } from '../../core/show/create.ts'
import { demoShow } from '../../demo/show.ts'
import { differenceOf } from '../../tests/support/pictures.ts'
import { inputFile, loadMatte } from '../../tests/references/cases.ts'

const rootDir = path.resolve(path.dirname(new URL(import.meta.url).pathname), '../..')
const folder = mkdtempSync(path.join(tmpdir(), 'green-room-cli-'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
const file = (name: string) => path.join(folder, name)

function runCli(command: 'treat' | 'still', ...args: string[]) {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    [path.join(rootDir, 'node_modules/tsx/dist/cli.mjs'), path.join(rootDir, `server/cli/${command}.ts`), ...args],
    { encoding: 'utf8' },
  )
  return { status, stdout, stderr }
}

async function pixels(name: string) {
  const { data, info } = await sharp(file(name)).ensureAlpha().raw().toBuffer({ resolveWithObject: true })
  return { data, ...info }
}

const key = { id: 'k', kind: 'chromaKey', on: true, params: { colour: '#01a93d', tolerance: 0.2, softness: 0.74, spill: 1 } }
writeFileSync(file('chain.json'), JSON.stringify({ format: 'green-room-chain', version: 1, steps: [key] }))
writeFileSync(file('empty.json'), JSON.stringify({ format: 'green-room-chain', version: 1, steps: [] }))

describe('treat', () => {
  it('writes the treated picture and its matte, alike on both executors', async () => {
    for (const executor of ['reference', 'cpu']) {
      const result = runCli(
        'treat',
        '--chain',
        file('chain.json'),
        '--in',
        inputFile('greenscreen.png'),
        '--out',
        file(`${executor}.png`),
        '--matte',
        file(`${executor}-matte.png`),
        '--executor',
        executor,
      )
      expect(result).toEqual({ status: 0, stdout: '', stderr: '' })
    }
    const [exact, live, matte] = await Promise.all([pixels('reference.png'), pixels('cpu.png'), pixels('cpu-matte.png')])
    expect(differenceOf(exact.data, live.data, 2).shareAbove).toBeLessThanOrEqual(0.001)
    expect(matte.data[0]).toBe(live.data[3])
    expect([matte.width, matte.height]).toEqual([192, 192])
  })

  it('changes nothing with an empty chain', async () => {
    runCli('treat', '--chain', file('empty.json'), '--in', inputFile('greenscreen.png'), '--out', file('same.png'))
    const original = await sharp(inputFile('greenscreen.png')).ensureAlpha().raw().toBuffer()
    expect((await pixels('same.png')).data.equals(original)).toBe(true)
  })

  it.each([
    ['no options', [], '--in is missing'],
    ['neither a chain nor a colour', ['--in', 'x.png', '--out', 'y.png'], 'Give either --chain with a file of steps, or --solve'],
    ['a colour that is none', ['--solve', 'grün', '--in', 'x.png', '--out', 'y.png'], '--solve must be green, blue or a colour written #rrggbb, got "grün"'],
    ['an unknown option', ['--chian', 'x'], '"--chian" is not known here'],
    ['an option without a value', ['--chain'], '--chain needs a value'],
    ['a missing file', ['--chain', 'nowhere.json', '--in', 'x.png', '--out', 'y.png'], '"nowhere.json" could not be read (ENOENT)'],
    ['a picture that is none', ['--chain', file('chain.json'), '--in', file('chain.json'), '--out', 'y.png'], 'is not a picture Green Room can read'],
    [
      'an unknown executor',
      ['--chain', file('chain.json'), '--in', inputFile('greenscreen.png'), '--out', 'y.png', '--executor', 'gpu'],
      '--executor must be reference or cpu, got "gpu"',
    ],
  ])('ends with 2 and a clear word on %s', (_name, args, words) => {
    const result = runCli('treat', ...args)
    expect(result.status).toBe(2)
    expect(result.stdout).toBe('')
    expect(result.stderr).toContain(words)
  })

  it.each([
    ['a look', { kind: 'look', params: { look: 'd'.repeat(64), amount: 1 } }, `names the look "${'d'.repeat(64)}". Give its file with --look`],
    [
      'an empty cloth',
      { ...key, params: { ...key.params, backdrop: 'plate', plate: 'd'.repeat(64), surface: [] } },
      'names a picture of the empty cloth. Give its file with --plate',
    ],
    ['a room', { kind: 'room', params: { effect: 'softened', softness: 3, edge: 0, input: '' } }, 'needs to know where the person is'],
  ])('writes nothing when the chain names %s that was not given', (_name, step, words) => {
    writeFileSync(file('naming.json'), JSON.stringify({ format: 'green-room-chain', version: 2, steps: [{ id: 's', on: true, ...step }] }))
    const result = runCli('treat', '--chain', file('naming.json'), '--in', inputFile('greenscreen.png'), '--out', file('named.png'))
    expect(result.status).toBe(2)
    expect(result.stderr).toContain(words)
    expect(existsSync(file('named.png'))).toBe(false)
  })

  it('names the number that is out of bounds in a chain', () => {
    writeFileSync(file('bad.json'), JSON.stringify({ format: 'green-room-chain', version: 1, steps: [{ ...key, params: { ...key.params, spill: 3 } }] }))
    const result = runCli('treat', '--chain', file('bad.json'), '--in', inputFile('greenscreen.png'), '--out', file('no.png'))
    expect(result.status).toBe(2)
    expect(result.stderr).toContain('steps.0.params.spill: must be a number between 0 and 1, got 3')
  })
})

describe('treat --solve', () => {
  it('finds a key that beats the usual values, writes its chain, and that chain gives the same matte', async () => {
    const found = runCli(
      'treat',
      '--solve',
      'green',
      '--in',
      inputFile('greenscreen.png'),
      '--out',
      file('found.png'),
      '--matte',
      file('found-matte.png'),
      '--chain-out',
      file('found.json'),
    )
    expect(found.status).toBe(0)
    expect(found.stderr).toMatch(/fringe \d+\.\d codes, see-through \d+\.\d\d %/)
    const again = runCli('treat', '--chain', file('found.json'), '--in', inputFile('greenscreen.png'), '--out', file('again.png'))
    expect(again).toEqual({ status: 0, stdout: '', stderr: '' })
    const [first, second] = await Promise.all([pixels('found.png'), pixels('again.png')])
    expect(second.data.equals(first.data)).toBe(true)
    const truth = await loadMatte('greenscreen_alpha.png')
    const mse = (data: Buffer) => truth.data.reduce((sum, alpha, i) => sum + ((data[i * 4 + 3]! - alpha) / 255) ** 2, 0) / truth.data.length
    runCli('treat', '--chain', file('chain.json'), '--in', inputFile('greenscreen.png'), '--out', file('usual.png'))
    expect(mse(first.data)).toBeLessThanOrEqual(0.001)
    expect(mse(first.data)).toBeLessThan(mse((await pixels('usual.png')).data))
  })

  it('says so when there is no such cloth, and uses a plate when given one', async () => {
    const none = runCli('treat', '--solve', 'blue', '--in', inputFile('greenscreen.png'), '--out', file('none.png'))
    expect(none.status).toBe(2)
    expect(none.stderr).toContain('no cloth of that colour was found')
    await sharp({ create: { width: 192, height: 192, channels: 3, background: '#01a93d' } })
      .png()
      .toFile(file('plate.png'))
    const plated = runCli(
      'treat',
      '--solve',
      '#01a93d',
      '--plate',
      file('plate.png'),
      '--in',
      inputFile('greenscreen.png'),
      '--out',
      file('plated.png'),
      '--chain-out',
      file('plated.json'),
    )
    expect(plated.status).toBe(0)
    const chain = JSON.parse(readFileSync(file('plated.json'), 'utf8')) as { steps: { params: { backdrop?: string; plate?: string } }[] }
    expect(chain.steps[0]!.params.backdrop).toBe('plate')
    expect(chain.steps[0]!.params.plate).toBe(
      createHash('sha256')
        .update(readFileSync(file('plate.png')))
        .digest('hex'),
    )
  })
})

describe('still', () => {
  const hash = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')

  /** The demo show and its pictures as files, as `still` reads them. */
  function writeDemo() {
    const files = demoPictures()
    const show = demoShow({ wall: hash(files.wall), mark: hash(files.mark), meadow: hash(files.meadow) })
    mkdirSync(file('assets'), { recursive: true })
    for (const bytes of Object.values(files)) writeFileSync(path.join(file('assets'), hash(bytes)), bytes)
    return show
  }

  /** `still` of the demo's first scene at 8.2 s. */
  function runStill(show: ReturnType<typeof demoShow>, executor: string, out: string) {
    const showFile = `${out}.json`
    writeFileSync(file(showFile), JSON.stringify(show))
    const scene = ['--show', file(showFile), '--scene', show.scenes[0]!.id, '--time-ms', '8200']
    return runCli('still', ...scene, '--asset-dir', file('assets'), '--out', file(out), '--executor', executor)
  }

  /** `show` with a look as the last step of every input but the camera. */
  function withLook(show: ReturnType<typeof demoShow>, look: string): ReturnType<typeof demoShow> {
    const step = { id: 'look', kind: 'look' as const, on: true, params: { look, amount: 1 } }
    const inputs = show.inputs.map((input) => (input.kind === 'camera' ? input : { ...input, treatment: [...input.treatment, step] }))
    return { ...show, inputs } as ReturnType<typeof demoShow>
  }

  it('renders a scene with text, pictures and the stand-in camera; the executors agree', async () => {
    const show = writeDemo()
    for (const executor of ['reference', 'cpu']) {
      expect(runStill(show, executor, `still-${executor}.png`)).toEqual({ status: 0, stdout: '', stderr: '' })
    }
    const [exact, live] = await Promise.all([pixels('still-reference.png'), pixels('still-cpu.png')])
    expect(differenceOf(exact.data, live.data, 2).shareAbove).toBeLessThanOrEqual(0.001)
    // The title plate is there, the cloth is not.
    const at = (x: number, y: number) => [...exact.data.subarray((y * 1280 + x) * 4, (y * 1280 + x) * 4 + 3)]
    expect(at(600, 660)[1]! - at(600, 660)[0]!).toBeGreaterThan(30)
    const [red, green] = at(300, 60)
    expect(green! - red!).toBeLessThan(30)
  })

  it('puts a look from the folder on the picture, alike on both executors', async () => {
    const cube = Buffer.from('LUT_1D_SIZE 2\n1 1 1\n0 0 0\n')
    const show = writeDemo()
    writeFileSync(path.join(file('assets'), hash(cube)), cube)
    for (const executor of ['reference', 'cpu']) {
      expect(runStill(withLook(show, hash(cube)), executor, `looked-${executor}.png`).status).toBe(0)
    }
    expect(runStill(show, 'cpu', 'plain.png').status).toBe(0)
    const [negative, liveNegative, plain] = await Promise.all(['looked-reference.png', 'looked-cpu.png', 'plain.png'].map(pixels))
    expect(differenceOf(negative!.data, liveNegative!.data, 2).shareAbove).toBeLessThanOrEqual(0.001)
    expect(differenceOf(negative!.data, plain!.data, 40).shareAbove).toBeGreaterThan(0.2)
  })

  it.each(['reference', 'cpu'])('misses a look that is not in the folder: %s', (executor) => {
    expect(runStill(withLook(writeDemo(), 'e'.repeat(64)), executor, 'missed.png').status).toBe(2)
  })

  it('names the scene that the show does not have', () => {
    writeFileSync(file('show.json'), JSON.stringify(writeDemo()))
    const unknown = runCli('still', '--show', file('show.json'), '--scene', 'nope', '--out', file('x.png'))
    expect(unknown.status).toBe(2)
    expect(unknown.stderr).toContain('the show has no scene "nope"')
    expect(unknown.stderr).toContain('(Welcome)')
  })

  it('renders the page that a deck opens at, and the one that a layer stays at', async () => {
    const papers = ['#c9dff2', '#5f6f4f']
    const hash = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex')
    const files = await Promise.all(
      papers.map((background) =>
        sharp({ create: { width: 64, height: 36, channels: 3, background } })
          .png()
          .toBuffer(),
      ),
    )
    const folder = file('pages')
    mkdirSync(folder)
    for (const bytes of files) writeFileSync(path.join(folder, hash(bytes)), bytes)
    const pages = files.map((bytes, index) => ({
      ...{ id: `p${index + 1}`, asset: hash(bytes), widthPx: 64, heightPx: 36 },
      ...{ number: index + 1, title: '', notes: '', skipped: false, strokes: [] },
    }))
    let count = 0
    const makeId = () => `k${(count += 1)}`
    const deck = newDeck('Slides', 's.pdf', pages, makeId)
    const show = demoShow({ wall: 'a'.repeat(64), mark: 'b'.repeat(64), meadow: 'c'.repeat(64) })
    const place = (x: number) => ({ x, y: 0, width: 640, height: 720, angleDeg: 0, fit: 'stretch' as const })
    const layers = [
      { ...newInputLayer(deck, show.canvas, makeId), placement: place(0) },
      { ...newInputLayer(deck, show.canvas, makeId), placement: place(640), pageId: 'p2' },
    ]
    const scene = { ...show.scenes[0]!, layers }
    writeFileSync(file('deck.json'), JSON.stringify({ ...show, inputs: [...show.inputs, deck], scenes: [scene, ...show.scenes.slice(1)] }))
    const args = ['--show', file('deck.json'), '--scene', scene.id, '--asset-dir', folder, '--out', file('deck.png')]
    expect(runCli('still', ...args)).toEqual({ status: 0, stdout: '', stderr: '' })
    const { data } = await pixels('deck.png')
    const at = (x: number) => `#${Buffer.from(data.subarray((360 * 1280 + x) * 4, (360 * 1280 + x) * 4 + 3)).toString('hex')}`
    expect([at(320), at(960)]).toEqual(papers)
  })

  it('renders the way from one scene to another: half way through a dissolve it is the mean of both', async () => {
    // Two scenes without pictures or cameras, so that no folder is needed.
    const show = demoShow({ wall: 'a'.repeat(64), mark: 'b'.repeat(64), meadow: 'c'.repeat(64) })
    const plain = (id: string, colour: string) => ({ id, kind: 'colour' as const, name: id, colour, treatment: [] })
    const inputs = [plain('red', '#c80000'), plain('blue', '#0000c8')]
    const scenes = inputs.map((input) => ({
      ...BARE_SCENE,
      id: `all-${input.id}`,
      name: input.id,
      layers: [newInputLayer(input, show.canvas, () => `of-${input.id}`)],
    }))
    writeFileSync(file('two.json'), JSON.stringify({ ...show, inputs, contents: [], scenes }))
    const go = (out: string, ...args: string[]) => runCli('still', '--show', file('two.json'), '--scene', 'all-blue', '--out', file(out), ...args)
    const half = JSON.stringify({ kind: 'dissolve', durationMs: 1000, easing: { kind: 'linear' } })
    const wipe = JSON.stringify({ kind: 'wipe', durationMs: 1000, easing: { kind: 'linear' }, angleDeg: 90, softness: 0 })
    expect(go('half.png', '--from', 'all-red', '--transition', half, '--time-ms', '500')).toEqual({ status: 0, stdout: '', stderr: '' })
    expect([...(await pixels('half.png')).data.subarray(0, 4)]).toEqual([100, 0, 100, 255])
    expect(go('wipe.png', '--from', 'all-red', '--transition', wipe, '--time-ms', '500', '--executor', 'reference').status).toBe(0)
    const { data } = await pixels('wipe.png')
    const at = (x: number) => [...data.subarray((300 * 1280 + x) * 4, (300 * 1280 + x) * 4 + 3)]
    expect([at(200), at(1100)]).toEqual([
      [0, 0, 200],
      [200, 0, 0],
    ])

    for (const [args, words] of [
      [['--transition', 'dissolve'], '--from and --transition go together'],
      [['--from', 'nope', '--transition', 'dissolve'], '--from: the show has no scene "nope"'],
      [['--from', 'all-red', '--transition', 'sparkle'], '--transition must be cut, dissolve'],
      [
        ['--from', 'all-red', '--transition', '{"kind":"dissolve","durationMs":-1,"easing":{"kind":"linear"}}'],
        'durationMs: must be a number between 0 and 20000, got -1',
      ],
    ] as const) {
      const refused = go('no.png', ...args)
      expect(refused.status).toBe(2)
      expect(refused.stderr).toContain(words)
    }
  })
})
