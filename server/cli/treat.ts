// npm run -s treat -- --chain chain.json --in a.png --out b.png [--matte m.png] [--plate p.png] [--look l.cube] [--executor reference|cpu]
// npm run -s treat -- --solve green|blue|#rrggbb --in a.png --out b.png [--plate p.png] [--matte m.png] [--chain-out chain.json]
import { activeSteps } from '../../core/steps/treatment.ts'
import { createHash } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import { parseHex, type Rgb } from '../../core/colour/hex.ts'
import type { KeyFigures } from '../../core/matte/figures.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { readChain } from '../../core/show/migrate.ts'
import type { Step } from '../../core/show/show.ts'
import { findKey, solvedCalls } from '../../core/solve/find-key.ts'
import type { StepCall } from '../../core/steps/index.ts'
import type { StepContext } from '../../core/steps/step.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import { InputError, readExecutor, readOptions, runCommand } from './arguments.ts'
import { readJson, readPicture, writeMatte, writePng } from './files.ts'
import { nodeHeap } from './node-engine.ts'
import { readLook, requireAll } from './resources.ts'

const NAMED_CLOTHS: Readonly<Record<string, string>> = { green: '#00b140', blue: '#0047bb' }

/** Runs a treatment on a still, or finds one for it. */
export async function treatCommand(argv: readonly string[]): Promise<void> {
  const options = readOptions(argv, {
    chain: { isRequired: false, hint: 'a JSON file with the steps (docs/formats.md)' },
    solve: { isRequired: false, hint: 'green, blue or #rrggbb: the cloth to find a key for' },
    in: { isRequired: true, hint: 'the picture to treat' },
    out: { isRequired: true, hint: 'the PNG file to write' },
    matte: { isRequired: false, hint: 'a PNG file for the opacity' },
    plate: { isRequired: false, hint: 'a picture of the empty cloth' },
    look: { isRequired: false, hint: 'a .cube file or look picture, for a chain that names one' },
    'chain-out': { isRequired: false, hint: 'a JSON file for the steps that were found' },
    executor: { isRequired: false, hint: 'reference or cpu' },
  })
  if ((options.chain === undefined) === (options.solve === undefined)) {
    throw new InputError('Give either --chain with a file of steps, or --solve with the colour of the cloth.')
  }
  const executor = readExecutor(options.executor)
  const hint = options.solve === undefined ? null : clothColour(options.solve)
  const chain = options.chain === undefined ? null : await readJson(options.chain, 'chain', readChain)
  const picture = await readPicture(options.in!, 'in')
  const plate = options.plate === undefined ? null : await readPicture(options.plate, 'plate')
  const lut = options.look === undefined ? null : await readLook(options.look, 'look')
  const context: StepContext = { widthPx: picture.widthPx, heightPx: picture.heightPx, picture: () => plate, lut: () => lut }
  const heap = executor === 'cpu' || options.solve !== undefined ? await nodeHeap() : null
  const treat = (calls: readonly StepCall[]) =>
    executor === 'cpu' ? treatStill(heap!, picture, calls, { resources: context }) : toRgba8(treatReference(picture, calls, { context }))

  let calls: readonly StepCall[]
  if (hint === null) calls = activeSteps(chain!.steps)
  else {
    const reference =
      options.plate === undefined
        ? ''
        : createHash('sha256')
            .update(await readFile(options.plate))
            .digest('hex')
    const found = findKey({
      picture,
      hint,
      plate: plate === null ? null : { reference, picture: plate },
      before: [],
      treat: (source, steps, resources) => treatStill(heap!, source, steps, { resources }),
    })
    if (found === null)
      throw new InputError(`--solve: no cloth of that colour was found in "${options.in!}". Give its colour as #rrggbb, picked from the picture.`)
    calls = solvedCalls(found)
    const steps = calls.map((call) => ({ id: call.kind, on: true, ...call })) as Step[]
    if (options['chain-out'] !== undefined) {
      await writeFile(options['chain-out'], `${JSON.stringify({ format: 'green-room-chain', version: 2, steps }, null, 2)}\n`)
    }
    process.stderr.write(`${figuresLine(found.after)}\n`)
  }
  requireAll(calls, context, {
    look: 'Give its file with --look.',
    plate: 'Give its file with --plate.',
    input: 'Pictures of a show are not at hand here; switch the step off in the chain.',
  })
  const treated = treat(calls)
  await writePng(options.out!, treated)
  if (options.matte !== undefined) await writeMatte(options.matte, treated)
}

function clothColour(value: string): Rgb {
  const hex = NAMED_CLOTHS[value] ?? value
  if (!/^#[0-9a-fA-F]{6}$/.test(hex)) throw new InputError(`--solve must be green, blue or a colour written #rrggbb, got "${value}".`)
  return parseHex(hex)
}

function figuresLine({ fringe, seeThrough, veil }: KeyFigures): string {
  return `fringe ${fringe.toFixed(1)} codes, see-through ${(seeThrough * 100).toFixed(2)} %, veil ${(veil * 100).toFixed(2)} %`
}

await runCommand(treatCommand)
