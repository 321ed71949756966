import { leafBends, type Painter, type Pen } from '@border/core'
import { rgb } from 'd3-color'

/** Faces that documents are set in. */
export const faces = { plain: 'plain', bold: 'bold', italic: 'italic' } as const

/** The painter of a document: it draws from where the origin of its page lies. */
export function pdfPainter(doc: PDFKit.PDFDocument): Painter {
  const forms = new Map<string, { name: string; form: PDFKit.PDFKitReference }>()
  return {
    path: (d, { fill, line, width = 1, dash, opacity = 1 }) => {
      doc.path(d).fillOpacity(opacity).strokeOpacity(opacity)
      if (line) {
        doc.lineWidth(width)
        if (dash) doc.dash(dash[0], { space: dash[1] })
        else doc.undash()
      }
      if (fill && line) doc.fillAndStroke(fill, line, 'even-odd')
      else if (fill) doc.fill(fill, 'even-odd')
      else if (line) doc.stroke(line)
    },
    fade: (x, y, width, height, stops) => {
      const fade = doc.linearGradient(x, y, x, y + height)
      for (const [at, colour, opacity = 1] of stops) fade.stop(at, colour, opacity)
      doc.fillOpacity(1).rect(x, y, width, height).fill(fade)
    },
    within: (d, draw) => {
      doc.save().path(d).clip()
      draw()
      doc.restore()
    },
    stamp: ({ name, reach, draw }, x, y, scale) => {
      const known = forms.get(name) ?? { name: `Stamp${forms.size + 1}`, form: formOf(doc, reach, draw) }
      forms.set(name, known)
      doc.page.xobjects[known.name] = known.form
      doc.save().translate(x, y).scale(scale)
      doc.addContent(`/${known.name} Do`)
      doc.restore()
    },
    text: (x, y, words, { size, colour, anchor = 'start', isBold, isItalic }) => {
      doc.font(isBold ? faces.bold : isItalic ? faces.italic : faces.plain).fontSize(size)
      const wide = anchor === 'start' ? 0 : doc.widthOfString(words)
      doc.fillColor(colour, 1).text(words, x - (anchor === 'end' ? wide : wide / 2), y, {
        lineBreak: false,
        baseline: 'alphabetic',
      })
    },
  }
}

/** A form of a document (ISO 32000, 8.10): what is drawn once, and shown wherever it is called. */
function formOf(doc: PDFKit.PDFDocument, reach: number, draw: (pen: Pen) => void): PDFKit.PDFKitReference {
  const content: string[] = ['1 J']
  draw(operatorPen(content))
  const form = doc.ref({
    Type: 'XObject',
    Subtype: 'Form',
    BBox: [-reach, -reach, reach, reach],
    Resources: {},
  })
  form.end(content.join('\n'))
  return form
}

const n = (v: number): string => String(Math.round(100 * v) / 100)

/** A pen that writes the operators of a page itself: tens of thousands of strokes are too many to be read as paths first. */
function operatorPen(content: string[]): Pen {
  const colours = new Map<string, string>()
  const channels = (colour: string): string => {
    const known = colours.get(colour)
    if (known) return known
    const { r, g, b } = rgb(colour)
    const said = [r, g, b].map((c) => n(c / 255)).join(' ')
    colours.set(colour, said)
    return said
  }
  let [fill, line] = ['', '']
  const fills = (colour: string): string => {
    if (colour === fill) return ''
    fill = colour
    return `${channels(colour)} rg `
  }
  const lines = (colour: string): string => {
    if (colour === line) return ''
    line = colour
    return `${channels(colour)} RG `
  }
  // A quadratic curve as the cubic one that it is.
  const bend = (x0: number, y0: number, bx: number, by: number, x1: number, y1: number): string =>
    `${n(x0 + (2 / 3) * (bx - x0))} ${n(y0 + (2 / 3) * (by - y0))} ${n(x1 + (2 / 3) * (bx - x1))} ${n(y1 + (2 / 3) * (by - y1))} ${n(x1)} ${n(y1)} c`
  return {
    leaf: (x, y, angle, length, width, colour) => {
      const [left, right] = leafBends(x, y, angle, length, width)
      const [tx, ty] = [x + length * Math.cos(angle), y + length * Math.sin(angle)]
      content.push(
        `${fills(colour)}${n(x)} ${n(y)} m ${bend(x, y, ...left, tx, ty)} ${bend(tx, ty, ...right, x, y)} f`,
      )
    },
    stem: (x0, y0, bx, by, x1, y1, width, colour) =>
      void content.push(
        `${lines(colour)}${n(width)} w ${n(x0)} ${n(y0)} m ${bend(x0, y0, bx, by, x1, y1)} S`,
      ),
    blade: (x0, y0, bx, by, x1, y1, width, colour) =>
      void content.push(
        `${fills(colour)}${n(x0 - width)} ${n(y0)} m ${bend(x0 - width, y0, bx - width, by, x1, y1)} ${bend(x1, y1, bx + width, by + width, x0 + width, y0)} f`,
      ),
    oval: (x, y, rx, ry, angle, colour) => {
      const [c, s] = [Math.cos(angle), Math.sin(angle)]
      const p = (u: number, v: number) =>
        `${n(x + u * rx * c - v * ry * s)} ${n(y + u * rx * s + v * ry * c)}`
      const k = QUARTER
      content.push(
        `${fills(colour)}${p(1, 0)} m ${p(1, k)} ${p(k, 1)} ${p(0, 1)} c ${p(-k, 1)} ${p(-1, k)} ${p(-1, 0)} c ${p(-1, -k)} ${p(-k, -1)} ${p(0, -1)} c ${p(k, -1)} ${p(1, -k)} ${p(1, 0)} c f`,
      )
    },
  }
}

/** Of the radius, from the end of a quarter of a circle to its control point: 4/3 (√2 − 1). */
const QUARTER = 0.5523
