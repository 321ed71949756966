import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import PDFDocument from 'pdfkit'
import { paperMm, type Painter, type Paper } from '@border/core'
import { faces, pdfPainter } from './pdfPainter.ts'

/** Points of a millimetre. */
export const PT_PER_MM = 72 / 25.4
const MARGIN = 34
export const INK = '#26231d'
export const SOFT = '#6d675b'
const RULE = '#cfc8b9'
const HEAD = 30
const FOOT = 16

const fonts = dirname(createRequire(import.meta.url).resolve('source-sans-pro/package.json'))

/** Room on a page, points from its upper left. */
export interface Room {
  left: number
  top: number
  width: number
  height: number
}

/** A document in the making: sheets lying on their long side, each with a head, numbered at their feet. */
export class Sheets {
  readonly doc: PDFKit.PDFDocument
  readonly painter: Painter
  private readonly written: Promise<Uint8Array>

  /** @param head stands on every page, but for its `foot`, which stands below the first */
  constructor(
    paper: Paper,
    private readonly head: { title: string; aside: string; foot: string },
  ) {
    this.doc = new PDFDocument({
      size: paperMm[paper].map((mm) => mm * PT_PER_MM) as [number, number],
      margin: 0,
      autoFirstPage: false,
      bufferPages: true,
      lang: 'en-GB',
      displayTitle: true,
      info: { Title: head.title },
    })
    this.painter = pdfPainter(this.doc)
    for (const [face, file] of [
      [faces.plain, 'Regular'],
      [faces.bold, 'Semibold'],
      [faces.italic, 'It'],
    ] as const)
      this.doc.registerFont(face, join(fonts, 'TTF', `SourceSansPro-${file}.ttf`))
    const parts: Uint8Array[] = []
    this.doc.on('data', (part: Uint8Array) => parts.push(part))
    this.written = new Promise((resolve) => this.doc.on('end', () => resolve(Buffer.concat(parts))))
  }

  /** A new page. @returns the room on it, points */
  page(): Room {
    const { doc } = this
    doc.addPage()
    const { width, height } = doc.page
    const inner = width - 2 * MARGIN
    this.words(this.head.title, MARGIN, MARGIN - 8, { size: 13, face: 'bold', width: 0.72 * inner })
    this.words(this.head.aside, MARGIN + 0.72 * inner, MARGIN - 5, {
      size: 9,
      colour: SOFT,
      width: 0.28 * inner,
      align: 'right',
    })
    this.rule(MARGIN + 12)
    return {
      left: MARGIN,
      top: MARGIN + HEAD - 8,
      width: inner,
      height: height - 2 * MARGIN - HEAD - FOOT + 8,
    }
  }

  rule(y: number): void {
    const { doc } = this
    doc.undash().lineWidth(0.5).strokeOpacity(1)
    doc
      .moveTo(MARGIN, y)
      .lineTo(doc.page.width - MARGIN, y)
      .stroke(RULE)
  }

  /** Words on one line, cut short where there is no room for them. */
  words(
    words: string,
    x: number,
    y: number,
    {
      size = 9,
      face = 'plain',
      colour = INK,
      width,
      align = 'left',
    }: { size?: number; face?: keyof typeof faces; colour?: string; width: number; align?: 'left' | 'right' },
  ): void {
    const { doc } = this
    doc.font(faces[face]).fontSize(size).fillColor(colour, 1)
    let shown = words
    while (shown.length > 1 && doc.widthOfString(shown) > width)
      shown = `${shown.replace(/…$/, '').slice(0, -1)}…`
    const wide = doc.widthOfString(shown)
    doc.text(shown, align === 'right' ? x + width - wide : x, y, { lineBreak: false })
  }

  /** A paragraph. @returns where it ends */
  paragraph(words: string, x: number, y: number, width: number, { size = 9, colour = SOFT } = {}): number {
    this.doc.font(faces.plain).fontSize(size).fillColor(colour, 1).text(words, x, y, { width })
    return this.doc.y
  }

  /** @returns the document, its pages numbered */
  async end(): Promise<Uint8Array> {
    const { doc } = this
    const { count } = doc.bufferedPageRange()
    for (let i = 0; i < count; i++) {
      doc.switchToPage(i)
      if (i === 0)
        this.words(this.head.foot, MARGIN, doc.page.height - MARGIN + 4, {
          size: 9,
          width: 0.7 * (doc.page.width - 2 * MARGIN),
        })
      this.words(`Page ${i + 1} of ${count}`, MARGIN, doc.page.height - MARGIN + 4, {
        size: 8,
        colour: SOFT,
        width: doc.page.width - 2 * MARGIN,
        align: 'right',
      })
    }
    doc.end()
    return this.written
  }
}
