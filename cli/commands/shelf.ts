import type { Command } from 'commander'
import { plainJson, print } from '../report'
import { records } from '../shelfInUse'

export function addShelf(program: Command): void {
  program
    .command('shelf')
    .description('printers, nozzles, materials and reels that can be named, with their keys')
    .option('--json', 'print one JSON object')
    .action((options: { json?: boolean }) => {
      const shelf = records()
      if (options.json) return print(plainJson(shelf))
      for (const [group, records] of Object.entries(shelf)) {
        if (group === 'spools' && shelf.spools.length === 0) continue
        print(`${group}:`)
        for (const record of records) print(`  ${record.key.padEnd(12)} ${record.name}`)
      }
    })
}
