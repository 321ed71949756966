import {
  arrangementFrom,
  backdropOf,
  counted,
  dayMonth,
  dayMonthYear,
  EYE_M,
  framing,
  frontView,
  grownTo,
  grownWords,
  isLaidOut,
  isWinterAt,
  kindsOf,
  materialUnits,
  monthName,
  moneyWords,
  paintGround,
  paperMm,
  paintPlan,
  paintPlants,
  placeOutline,
  planKey,
  planOnPaper,
  plantingTable,
  plantsOf,
  plantsOfScheme,
  pocketsOf,
  setWords,
  sidesOf,
  svgPainter,
  USUAL_AWAY_M,
  type BedGround,
  type DrawnScheme,
  type Feature,
  type IsoDate,
  type Painter,
  type Paper,
  type PlacedPlant,
  type Point,
  type SaidForPaper,
  type SchemeTotals,
  type StandingPlant,
  type Taxon,
  type Year,
} from '@border/core'
import { INK, PT_PER_MM, Sheets, SOFT } from '../paper/document.ts'

// What is drawn for paper on the compute threads.

/** A scheme with all that its drawings are made from. */
export interface SchemeToDraw {
  garden: string
  place: string
  scheme: string
  /** The garden's own day. */
  today: IsoDate
  northDeg: number
  year: Year
  ground: BedGround
  said: SaidForPaper & { baseLine: readonly [Point, Point] | null; seenFromM: number | null }
  /** The kinds that it names, as far as they are known. */
  taxa: readonly Taxon[]
  features: readonly Feature[]
}

/** When it is looked at. */
export interface SchemeMoment {
  on: IsoDate
  /** Since it was planted. */
  years: number
}

/** A scheme as it lies in the ground. */
function drawnScheme({ ground, said, taxa, northDeg }: SchemeToDraw): DrawnScheme {
  const kindOf = new Map(taxa.map((t) => [t.botanical, t]))
  const arranged = arrangementFrom(ground, said.drifts, kindOf)
  const bulbs = said.between.flatMap(({ id, botanical, count }) => {
    const taxon = kindOf.get(botanical)
    return taxon ? [{ id, taxon, count }] : []
  })
  return {
    ground,
    arranged,
    pockets: isLaidOut(said) ? pocketsOf(ground, arranged, bulbs) : [],
    stones: said.stones ?? [],
    drifts: said.drifts,
    between: said.between,
    kindOf,
    northDeg,
  }
}

/** Printers leave an edge of a sheet white, millimetres. */
const EDGE_MM = 10

/** The plan of a scheme, to a scale of rulers, as SVG. */
export function schemePlanSvg({ task, paper }: { task: SchemeToDraw; paper: Paper }): string {
  const drawn = drawnScheme(task)
  const [width, height] = paperMm[paper].map((mm) => mm - 2 * EDGE_MM) as [number, number]
  const on = planOnPaper(placeOutline(task.ground.of.place), width, height)
  const { painter, written } = svgPainter(
    { width, height: on.heightMm, wide: `${width}mm`, high: `${on.heightMm}mm` },
    `${task.place}: ${task.scheme}, 1 : ${on.scale}`,
  )
  paintPlan(painter, drawn, on)
  return written()
}

/** Pixels of a view as SVG. */
const VIEW_PX = [1600, 640] as const

/** A scheme as it is seen from its first side, or another, as SVG. */
export function schemeViewSvg({
  task,
  moment,
  side,
}: {
  task: SchemeToDraw
  moment: SchemeMoment
  side: number
}): string {
  const seen = viewOf(task, drawnScheme(task), moment, side)
  const [width, most] = VIEW_PX
  const frame = seen.framed(width, most)
  const { painter, written } = svgPainter(frame, seen.title)
  seen.paint(painter, frame)
  return written()
}

/** Every plant of a scheme, and what is seen behind it: what it is drawn from where it is looked at. */
export function schemePlants(task: SchemeToDraw): { plants: StandingPlant[]; behind: Feature[] } {
  const { ground, today, features } = task
  const outline = placeOutline(ground.of.place)
  const isBehind = (f: Feature) =>
    ground.viewedFrom.some(
      (fromDeg) => backdropOf(outline, [f], { fromDeg, awayM: awayOf(task), eyeM: EYE_M }, today).length > 0,
    )
  return { plants: plantsOfScheme(drawnScheme(task), today), behind: features.filter(isBehind) }
}

/** From so far it is looked at, metres. */
const awayOf = ({ said }: SchemeToDraw): number => said.seenFromM ?? USUAL_AWAY_M

/** A scheme from the path, to be painted. */
function viewOf(task: SchemeToDraw, drawn: DrawnScheme, { on, years }: SchemeMoment, side: number) {
  const { ground, year, today, features } = task
  const outline = placeOutline(ground.of.place)
  const plants = plantsOfScheme(drawn, today)
  const fromDeg = ground.viewedFrom[side] ?? ground.viewedFrom[0] ?? 180
  const standpoint = { fromDeg, awayM: awayOf(task), eyeM: EYE_M }
  const inGrowth = { on: year.south ? '2027-01-20' : '2026-07-20', year, years }
  const tallest = frontView(outline, plants, standpoint, inGrowth)
  const view = frontView(outline, plants, standpoint, { on, year, years })
  const backdrop = backdropOf(outline, features, standpoint, on)
  const isWinter = isWinterAt(on, year)
  return {
    title: `${task.place} from the path, week of ${dayMonth(on)}, ${years === 1 ? 'a year' : `${years} years`} after planting`,
    /** As wide as there is room, and no higher than it needs. */
    framed: (width: number, most: number) => {
      const frame = framing(tallest, backdrop, width, most, 1, true)
      const high = Math.ceil(Math.min(most, most - frame.y(tallestM(tallest)) + SKY_M * frame.pxPerM))
      return framing(tallest, backdrop, width, high, 1, true)
    },
    paint: (painter: Painter, frame: ReturnType<typeof framing>) => {
      paintGround(painter, tallest, backdrop, frame, isWinter)
      paintPlants(painter, view, frame)
    },
  }
}

/** So much of the sky is seen over what is tallest, metres. */
const SKY_M = 0.5
const tallestM = ({ plants }: ReturnType<typeof frontView>): number =>
  Math.max(0.8, ...plants.map((p) => p.y + p.scale * p.body.heightM))

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

const ROW = 12.5
const KEY_COLUMN = 300

/** What is left of a page. */
type Room = ReturnType<Sheets['page']>
const below = ({ left, top, width, height }: Room, y: number): Room => ({
  left,
  top: y,
  width,
  height: top + height - y,
})

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

/**
 * Rows in columns, on as many pages as they need.
 *
 * @param least how wide a column is at least; `isLevel`: all columns of a page are as long, where there is room for all
 * @returns what is left of the last page
 */
function inColumns<Row>(
  sheets: Sheets,
  first: Room,
  rows: readonly Row[],
  { least, isLevel = false }: { least: number; isLevel?: boolean },
  draw: (row: Row, x: number, y: number, width: number) => void,
): Room {
  let room = first
  const columns = Math.max(1, Math.floor(room.width / least))
  const width = room.width / columns
  const linesFor = (left: number) => {
    const there = Math.max(1, Math.floor(room.height / ROW))
    return isLevel ? Math.min(there, Math.ceil(left / columns)) : there
  }
  let [column, line, most, lowest] = [0, 0, linesFor(rows.length), 0]
  rows.forEach((row, i) => {
    if (line >= most) {
      line = 0
      column++
    }
    if (column >= columns) {
      room = sheets.page()
      column = 0
      lowest = 0
      most = linesFor(rows.length - i)
    }
    draw(row, room.left + column * width, room.top + line * ROW, width)
    line++
    lowest = Math.max(lowest, line)
  })
  return below(room, room.top + lowest * ROW)
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
  const unit = (item: string) => (materialUnits[item] ? `${materialUnits[item]} ` : '')
  type Row = { words: string; packs?: string; price?: string; isHead?: boolean }
  const rows = [
    ...shopping.suppliers.flatMap((s): Row[] => [
      { words: s.supplier, price: moneyWords(s.price), isHead: true },
      ...s.lines.map((l): Row => ({
        words: `${l.wanted} ${unit(l.item)}${l.item}`,
        packs: l.cover.packs.map((p) => `${p.number} × ${p.pack.name}`).join(', '),
        price: moneyWords(l.cover.price),
      })),
    ]),
    ...(shopping.unpriced.length > 0 ? [{ words: 'Nobody has a price for', isHead: true }] : []),
    ...shopping.unpriced.map((u): Row => ({ words: `${u.wanted} ${unit(u.item)}${u.item}` })),
  ]
  const room = sheets.page()
  sheets.words('Shopping list', room.left, room.top, { size: 12, face: 'bold', width: room.width })
  const told = sheets.paragraph(
    rows.length === 0
      ? 'Nothing is to be bought.'
      : `${hoursWords(minutes)} of work; ${moneyWords(price)} over three years${shopping.oldestPrice ? `, by prices asked since ${dayMonthYear(shopping.oldestPrice)}` : ''}.`,
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

const hoursWords = (minutes: number): string =>
  minutes < 60 ? `${minutes} min` : counted(Math.round(minutes / 60), 'hour')

/** Under this name stepping stones stand in the table. */
const STONE = 'stone'

function tableSheets(sheets: Sheets, task: SchemeToDraw, drawn: DrawnScheme): void {
  const { said, ground } = task
  const { arranged, pockets, stones } = drawn
  const plants = [
    ...plantsOf(ground, arranged),
    ...pockets,
    ...stones.map(([x, y]) => ({ driftId: STONE, x, y })),
  ]
  if (plants.length === 0) return
  const names = new Map([
    ...arranged.drifts.map((d) => [d.id, d.taxon.botanical] as const),
    ...pockets.map((p) => {
      const of = said.between.find((b) => b.id === p.driftId)!
      return [p.driftId, `${p.bulbs} ${of.botanical}`] as const
    }),
    [STONE, 'stepping stone'] as const,
  ])
  const longest = sidesOf(placeOutline(ground.of.place))[0]!
  const [from, to] = said.baseLine ?? [longest.from, longest.to]
  const table = plantingTable(plants, names, { from, to })
  const m = (v: number) => `${v.toFixed(2).replace('-', '−')} m`
  const room = sheets.page()
  sheets.words('Where each plant is set', room.left, room.top, { size: 12, face: 'bold', width: room.width })
  const told = sheets.paragraph(
    `Lay a tape of ${m(Math.hypot(to[0] - from[0], to[1] - from[1]))} from the point ${m(from[0])} across and ${m(from[1])} up the plan. Each plant: so far along the tape, and so far off it, to the left as you go${table.some((r) => r.offM < 0) ? '; to the right below nothing' : ''}.`,
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
