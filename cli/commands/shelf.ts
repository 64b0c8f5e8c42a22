import { starterMaterials, starterNozzles, starterPrinters } from '@sable/core/shelf/starter'
import type { Command } from 'commander'
import { print } from '../report'

export function addShelf(program: Command): void {
  program
    .command('shelf')
    .description('starter printers, nozzles and materials with their keys')
    .option('--json', 'print one JSON object')
    .action((options: { json?: boolean }) => {
      const shelf = { printers: starterPrinters, nozzles: starterNozzles, materials: starterMaterials }
      if (options.json) return print(JSON.stringify(shelf, null, 2))
      for (const [group, records] of Object.entries(shelf)) {
        print(`${group}:`)
        for (const record of records) print(`  ${record.key.padEnd(12)} ${record.name}`)
      }
    })
}
