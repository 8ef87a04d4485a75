// npm run -s treat -- --chain chain.json --in a.png --out b.png [--matte m.png] [--executor reference|cpu]
import { activeSteps } from '../../core/plan/plan-frame.ts'
import { toRgba8 } from '../../core/render/render-reference.ts'
import { treatReference } from '../../core/render/treat-reference.ts'
import { readChain } from '../../core/show/migrate.ts'
import { treatStill } from '../../engine/cpu/treat-still.ts'
import { readExecutor, readOptions, runCommand } from './arguments.ts'
import { readJson, readPicture, writeMatte, writePng } from './files.ts'
import { nodeHeap } from './node-engine.ts'

/** Runs a treatment on a still. */
export async function treatCommand(argv: readonly string[]): Promise<void> {
  const options = readOptions(argv, {
    chain: { isRequired: true, hint: 'a JSON file with the steps (docs/formats.md)' },
    in: { isRequired: true, hint: 'the picture to treat' },
    out: { isRequired: true, hint: 'the PNG file to write' },
    matte: { isRequired: false, hint: 'a PNG file for the opacity' },
    executor: { isRequired: false, hint: 'reference or cpu' },
  })
  const executor = readExecutor(options.executor)
  const chain = await readJson(options.chain!, 'chain', readChain)
  const picture = await readPicture(options.in!, 'in')
  const steps = activeSteps(chain.steps)
  const treated = executor === 'cpu' ? treatStill(await nodeHeap(), picture, steps) : toRgba8(treatReference(picture, steps))
  await writePng(options.out!, treated)
  if (options.matte !== undefined) await writeMatte(options.matte, treated)
}

await runCommand(treatCommand)
