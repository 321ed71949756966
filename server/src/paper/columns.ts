import type { Room, Sheets } from './document.ts'

/** How high a row is, points. */
export const ROW = 12.5

/** What is left of a page below a height. */
export const below = ({ left, top, width, height }: Room, y: number): Room => ({
  left,
  top: y,
  width,
  height: top + height - y,
})

/**
 * Rows in columns, on as many pages as they need.
 *
 * @param least how wide a column is at least; `isLevel`: all columns of a page are as long, where there is room for all
 * @returns what is left of the last page
 */
export function inColumns<Row>(
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
