import { StageCache } from '@sable/core/pipeline/stageCache'
import type { Command } from 'commander'
import { foretell, purposeOf } from '../candidate'
import { loadPart, loadProfile } from '../files'
import { openKernel } from '../openKernel'
import { type SharedOptions, withLoad } from '../options'
import { asJson, asTable, plainJson, print } from '../report'

export function addCompare(program: Command): void {
  withLoad(
    program
      .command('compare')
      .description('figures for several profiles side by side')
      .argument('<model>', 'STL, 3MF or OBJ file')
      .argument('<profiles...>', 'profile files'),
  ).action(async (model: string, files: string[], options: SharedOptions) => {
    const part = await loadPart(model)
    const kernel = await openKernel()
    const cache = new StageCache()
    const profiles = await Promise.all(files.map(loadProfile))
    const purpose = purposeOf(options)
    const foretold = profiles.map((file) => foretell(part, file, options, kernel, cache))
    print(
      options.json
        ? plainJson({
            candidates: foretold.map((one, i) => ({ name: profiles[i]!.name, file: files[i], ...asJson(one, purpose) })),
          })
        : asTable(
            profiles.map((profile) => profile.name),
            foretold,
            purpose,
          ),
    )
  })
}
