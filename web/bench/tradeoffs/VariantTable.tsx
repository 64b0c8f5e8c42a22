import type { FoundVariant, SearchSpec } from '@sable/contract/search'
import { figureOf } from '@sable/core/figures/figures'
import { figureIds } from '@sable/core/figures/table/figure'
import { choicesOf, type Dimension } from '@sable/core/search/space'
import { type TableColumn, TableSheet } from '../../ui/TableSheet'
import { choiceWords, dimensionLabel } from './dimensionWords'
import { plainOf } from './figureWords'

/** Variants with their choices and figures. */
export function VariantTable({
  title,
  spec,
  variants,
  names,
  onClose,
}: {
  title: string
  spec: SearchSpec
  variants: readonly FoundVariant[]
  names: (kind: Dimension['kind'], key: string) => string
  onClose: () => void
}) {
  const columns: TableColumn[] = [
    { label: 'Variant', digits: 0, of: (row) => variants[row]!.position + 1 },
    ...spec.dimensions.map((dimension, d): TableColumn => {
      const of = (row: number): number | string => {
        const choice = choicesOf(dimension)[variants[row]!.choices[d]!]!
        return typeof choice === 'number' ? String(choice) : choiceWords(dimension, choice, names)
      }
      return { label: dimensionLabel(dimension), of }
    }),
    ...figureIds.map((figure): TableColumn => {
      const { label } = figureOf[figure]
      const { unit, per, digits } = plainOf(figure)
      return { label, unit, digits: unit === 'min' ? 1 : digits, of: (row) => scaled(variants[row]!.figures?.[figure], per) }
    }),
  ]
  if (variants.some(({ figures }) => figures?.solvedN != null))
    columns.push({ label: 'Strength, solved', unit: 'N', digits: 1, of: (row) => variants[row]!.figures?.solvedN ?? undefined })
  return <TableSheet title={title} rowCount={variants.length} columns={columns} onClose={onClose} />
}

const scaled = (value: number | undefined, per: number): number | undefined => (value === undefined ? undefined : value / per)
