/** Sheets that can be printed on. */
export const papers = ['A4', 'A3', 'Letter'] as const
export type Paper = (typeof papers)[number]

/** How wide and high they are lying on their long side, millimetres: ISO 216, and 11 by 8.5 inches. */
export const paperMm: Readonly<Record<Paper, readonly [width: number, height: number]>> = {
  A4: [297, 210],
  A3: [420, 297],
  Letter: [279.4, 215.9],
}
