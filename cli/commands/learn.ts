import { constantOf } from '@sable/core/constants/constants'
import { type Before, type EvidenceFile, evidenceFileSchema, learnFrom } from '@sable/core/learning/learnFrom'
import { UNTOLD_START_S } from '@sable/core/log/foretoldPrint'
import { flowModel } from '@sable/core/physics/melt/flowLimit'
import { knownSetup } from '@sable/core/setup/knownSetup'
import { threeDigits } from '@sable/core/units/format'
import type { Command } from 'commander'
import { readJson } from '../files'
import { findSetup } from '../findRecords'
import { plainJson, print } from '../report'

export function addLearn(program: Command): void {
  program
    .command('learn')
    .description('what prints, weighings, ladders and broken bars say about constants')
    .argument('<evidence>', 'JSON file: see docs/command-line.md')
    .option('--json', 'print one JSON object')
    .action(async (path: string, { json = false }: { json?: boolean }) => {
      const evidence = await readJson(path, evidenceFileSchema)
      const found = learnFrom(evidence, before(evidence))
      if (json) return print(plainJson(found))
      print(
        [
          ...Object.entries(found.constants).map(
            ([name, { value, low, high, basis, from }]) =>
              `${name}: ${threeDigits(value)} (${threeDigits(low)} to ${threeDigits(high)}), ${basis === 'measured' ? `by ${from}` : basis}`,
          ),
          `80 % ranges reach ${threeDigits(found.q)} standard deviations to either side.`,
        ].join('\n'),
      )
    })
}

/** Failing flow at 210 °C, strength within layers, MPa, and bond that are thought of where neither printer nor material is named. */
const USUAL = { failingFlowAt210: 25.6, strengthWithin: 50, bond: 0.65 } as const

function before({ printer, material }: EvidenceFile): Before {
  const spread = (id: Parameters<typeof constantOf>[0]): number => constantOf(id).spread
  return {
    ...(printer === undefined && material === undefined ? USUAL : ofRecords(printer, material)),
    flowSpread: spread('melt.flowLong'),
    flowSlopePer10: constantOf('melt.ladderSlope').median,
    slopeSpread: spread('melt.ladderSlope'),
    strengthSpread: spread('strength.inLayer'),
    bondSpread: spread('strength.bond'),
    accelerationSpread: spread('print.acceleration'),
    paceSpread: spread('print.pace'),
    startS: UNTOLD_START_S,
    startSpread: spread('print.start'),
    flowFactorSpread: spread('print.flow'),
  }
}

/** @throws InputError naming a record that the shelf lacks */
function ofRecords(printer: string | undefined, material: string | undefined) {
  const setup = knownSetup(findSetup({ printer, material }))
  const { inLayer, bondFactor } = setup.material.strength
  return { failingFlowAt210: flowModel(setup, 210, setup.constants).failsAt, strengthWithin: inLayer, bond: bondFactor }
}
