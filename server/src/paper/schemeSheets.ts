import {
  dayMonthYear,
  grownTo,
  grownWords,
  kindsOf,
  minutesText,
  moneyWords,
  monthName,
  packsWords,
  paintPlan,
  placeOutline,
  planKey,
  planOnPaper,
  settingOut,
  setWords,
  wantedWords,
  type DrawnScheme,
  type Paper,
  type PlacedPlant,
  type SchemeTotals,
} from '@border/core'
import { below, inColumns, ROW } from './columns.ts'
import { INK, PT_PER_MM, Sheets, SOFT, type Room } from './document.ts'
import { drawnScheme, viewOf, type SchemeMoment, type SchemeToDraw } from './drawnScheme.ts'

/** What a document of a scheme holds beside its drawings. */
export interface SchemePdf {
  task: SchemeToDraw
  moment: SchemeMoment
  paper: Paper
  /** Absent where what it costs is nobody's business. */
  totals?: SchemeTotals | undefined
}

/** A scheme on paper: plan with key, as it is seen from each side, what is bought, where each plant is set. */
export async function schemePdf({ task, moment, paper, totals }: SchemePdf): Promise<Uint8Array> {
  const drawn = drawnScheme(task)
  const sheets = new Sheets(paper, {
    title: `${task.place}: ${task.scheme}`,
    aside: `${task.garden}, ${dayMonthYear(task.today)}`,
    foot: 'Agreed, name and day: ______________________________',
  })
  viewSheets(sheets, task, drawn, moment, planSheet(sheets, task, drawn))
  if (totals) shoppingSheets(sheets, totals)
  tableSheets(sheets, task, drawn)
  return sheets.end()
}

const KEY_COLUMN = 300

/** The plan with its key. @returns what is left of the page */
function planSheet(sheets: Sheets, task: SchemeToDraw, drawn: DrawnScheme): Room {
  const { doc } = sheets
  const key = keyRows(task, drawn)
  const room = sheets.page()
  const columns = Math.max(1, Math.floor(room.width / KEY_COLUMN))
  const keyHigh = Math.ceil(key.length / columns) * ROW + 18
  const isBeneath = keyHigh < 0.42 * room.height
  const on = planOnPaper(
    placeOutline(task.ground.of.place),
    room.width / PT_PER_MM,
    (isBeneath ? room.height - keyHigh : room.height) / PT_PER_MM,
  )
  doc.save().translate(room.left, room.top).scale(PT_PER_MM)
  paintPlan(sheets.painter, drawn, on)
  doc.restore()
  const forKey = isBeneath ? below(room, room.top + on.heightMm * PT_PER_MM + 8) : sheets.page()
  return inColumns(
    sheets,
    forKey,
    key,
    { least: KEY_COLUMN, isLevel: true },
    ({ mark, words, isOfWhatStays }, x, y, width) => {
      sheets.words(mark, x, y, { face: isOfWhatStays ? 'italic' : 'bold', width: 22 })
      sheets.words(words, x + 24, y, { width: width - 36, colour: isOfWhatStays ? SOFT : INK })
    },
  )
}

interface KeyRow {
  mark: string
  words: string
  isOfWhatStays: boolean
}

function keyRows({ said, ground }: SchemeToDraw, drawn: DrawnScheme): KeyRow[] {
  const { letters, numbers } = planKey(drawn)
  return [
    ...kindsOf(said).map(({ botanical, count }): KeyRow => {
      const taxon = drawn.kindOf.get(botanical)
      return {
        mark: letters.get(botanical)!,
        words: `${count} ${botanical}, ${taxon ? `${taxon.common}, ${setWords(taxon, ground.of.place)}` : 'no longer in the plant library'}`,
        isOfWhatStays: false,
      }
    }),
    ...ground.stays.map((p): KeyRow => ({
      mark: numbers.get(p.id)!,
      words: `stays: ${p.livingCount} ${p.taxon.botanical}, ${p.taxon.common}`,
      isOfWhatStays: true,
    })),
  ]
}

/** As it is seen from each side, beneath what is on the page already where there is room. */
function viewSheets(
  sheets: Sheets,
  task: SchemeToDraw,
  drawn: DrawnScheme,
  moment: SchemeMoment,
  left: Room,
): void {
  const { doc } = sheets
  const { years, on } = moment
  const taxa = drawn.arranged.drifts.map((d) => d.taxon)
  let room = below(left, left.top + 14)
  task.ground.viewedFrom.forEach((_, side, { length }) => {
    const seen = viewOf(task, drawn, moment, side)
    const whole = seen.framed(room.width, doc.page.height - 2 * PAGE_EDGES - CAPTION)
    if (whole.height + CAPTION > room.height) room = sheets.page()
    const frame = seen.framed(room.width, room.height - CAPTION)
    doc.save().translate(room.left, room.top)
    doc.rect(0, 0, frame.width, frame.height).clip()
    seen.paint(sheets.painter, frame)
    doc.restore()
    const from = length === 1 ? '' : side === 0 ? ', from the first side' : ', from the other side'
    const grown =
      side === 0 && taxa.length > 0
        ? ` ${years === 1 ? 'A year' : `${years} years`} on, ${grownWords(grownTo(taxa, years))}.`
        : ''
    const end = sheets.paragraph(
      `${seen.title}${from}. Drawn in proportion, as the kinds usually look in ${monthName(on)}; no plant grows just as it is drawn.${grown}`,
      room.left,
      room.top + frame.height + 4,
      room.width,
    )
    room = below(room, end + 10)
  })
}
const PAGE_EDGES = 60
const CAPTION = 34

function shoppingSheets(sheets: Sheets, { shopping, price, minutes }: SchemeTotals): void {
  type Row = { words: string; packs?: string; price?: string; isHead?: boolean }
  const rows = [
    ...shopping.suppliers.flatMap((s): Row[] => [
      { words: s.supplier, price: moneyWords(s.price), isHead: true },
      ...s.lines.map((l): Row => ({
        words: wantedWords(l),
        packs: packsWords(l.cover),
        price: moneyWords(l.cover.price),
      })),
    ]),
    ...(shopping.unpriced.length > 0 ? [{ words: 'Nobody has a price for', isHead: true }] : []),
    ...shopping.unpriced.map((u): Row => ({ words: wantedWords(u) })),
  ]
  const room = sheets.page()
  sheets.words('Shopping list', room.left, room.top, { size: 12, face: 'bold', width: room.width })
  const told = sheets.paragraph(
    rows.length === 0
      ? 'Nothing is to be bought.'
      : `${minutesText(minutes)} of work; ${moneyWords(price)} over three years${shopping.oldestPrice ? `, by prices asked since ${dayMonthYear(shopping.oldestPrice)}` : ''}.`,
    room.left,
    room.top + 17,
    room.width,
  )
  inColumns(sheets, below(room, told + 8), rows, { least: 340 }, (row, x, y, width) => {
    const face = row.isHead ? 'bold' : 'plain'
    sheets.words(row.words, x, y, { face, width: 0.4 * width })
    if (row.packs) sheets.words(row.packs, x + 0.41 * width, y, { colour: SOFT, width: 0.4 * width })
    if (row.price) sheets.words(row.price, x + 0.82 * width, y, { face, width: 0.14 * width, align: 'right' })
  })
}

function tableSheets(sheets: Sheets, { said }: SchemeToDraw, drawn: DrawnScheme): void {
  const { base, table } = settingOut(drawn, said)
  if (table.length === 0) return
  const { from, lengthM } = base
  const m = (v: number) => `${v.toFixed(2).replace('-', '−')} m`
  const room = sheets.page()
  sheets.words('Where each plant is set', room.left, room.top, { size: 12, face: 'bold', width: room.width })
  const told = sheets.paragraph(
    `Lay a tape of ${m(lengthM)} from the point ${m(from[0])} across and ${m(from[1])} up the plan. Each plant: so far along the tape, and so far off it, to the left as you go${table.some((r) => r.offM < 0) ? '; to the right below nothing' : ''}.`,
    room.left,
    room.top + 17,
    room.width,
  )
  inColumns(sheets, below(room, told + 8), table, { least: 230 }, (row: PlacedPlant, x, y, width) => {
    sheets.words(String(row.number), x, y, { width: 24, align: 'right', colour: SOFT })
    sheets.words(row.name, x + 30, y, { width: width - 30 - 100 })
    sheets.words(m(row.alongM), x + width - 98, y, { width: 44, align: 'right' })
    sheets.words(m(row.offM), x + width - 54, y, { width: 44, align: 'right' })
  })
}
