import type { PlacedPlant, SchemeTotals } from '../rework/index.ts'
import { writeTable } from './table.ts'

/** A shopping list as a table, by supplier; what has no price last. */
export const shoppingCsv = ({ shopping }: SchemeTotals): string =>
  writeTable(
    ['supplier', 'item', 'wanted', 'packs', 'holds', 'price', 'priced_on'],
    [
      ...shopping.suppliers.flatMap((s) =>
        s.lines.map((l) => [
          s.supplier,
          l.item,
          l.wanted,
          l.cover.packs.map((p) => `${p.number} ${p.pack.name}`).join(' + '),
          l.cover.holds,
          (l.cover.price / 100).toFixed(2),
          l.pricedOn,
        ]),
      ),
      ...shopping.unpriced.map((u) => ['', u.item, u.wanted, '', '', '', '']),
    ],
  )

/** Every plant of a scheme with where it is set, as a table. */
export const plantingCsv = (rows: readonly PlacedPlant[]): string =>
  writeTable(
    ['number', 'plant', 'along_m', 'off_m', 'x', 'y'],
    rows.map((r) => [r.number, r.name, ...[r.alongM, r.offM, r.x, r.y].map((v) => v.toFixed(2))]),
  )
