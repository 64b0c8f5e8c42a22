import { basename } from 'node:path'
import { placeOf } from '@sable/core/physics/strength/purpose'
import { StageCache } from '@sable/core/pipeline/stageCache'
import { fieldsOf } from '@sable/core/views/fields'
import type { Command } from 'commander'
import { candidateOf, foretell, purposeOf } from '../candidate'
import { loadPart, loadProfile, writeNamed } from '../files'
import { openKernel } from '../openKernel'
import { type SharedOptions, withLoad } from '../options'
import { asJson, asTable, fieldsAsJson, plainJson, print } from '../report'

export function addPredict(program: Command): void {
  withLoad(program.command('predict').description('figures for one profile').argument('<model>', 'STL, 3MF or OBJ file'))
    .option('--profile <file>', 'profile file')
    .option('--fields <file>', 'where to write what is known of each layer, facet and section, as JSON')
    .action(async (model: string, options: SharedOptions & { profile?: string; fields?: string }) => {
      const part = await loadPart(model)
      const file = options.profile === undefined ? undefined : await loadProfile(options.profile)
      const purpose = purposeOf(options)
      const [kernel, cache] = [await openKernel(), new StageCache()]
      const foretold = foretell(part, file, options, kernel, cache)
      if (options.fields !== undefined) {
        const { setup, values, placement, overrides } = candidateOf(file, options)
        const fields = fieldsOf(part, placement, setup, values, { kernel, cache, overrides, load: placeOf(purpose) })
        await writeNamed(options.fields, [fieldsAsJson(fields)])
      }
      print(options.json ? plainJson(asJson(foretold, purpose)) : asTable([file?.name ?? basename(model)], [foretold], purpose))
    })
}
