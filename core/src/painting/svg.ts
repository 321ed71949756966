import { pathPen, type Painter, type PathStyle } from './painter.ts'

const escaped = (words: string): string =>
  words.replace(/[&<>"]/g, (c) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[c]!)

/**
 * A painter whose picture is SVG, complete in itself.
 *
 * @param width of its own units, as `height`
 * @param wide and `high`: how large it is on paper, with their unit
 */
export function svgPainter(
  { width, height, wide, high }: { width: number; height: number; wide?: string; high?: string },
  title: string,
): { painter: Painter; written: () => string } {
  const stamps = new Map<string, string>()
  const body: string[] = []
  let names = 0
  const painter: Painter = {
    path: (d, style) => void body.push(`<path d="${d}"${attributes(style)}/>`),
    fade: (x, y, w, h, stops) => {
      const id = `fade${++names}`
      const colours = stops.map(
        ([at, colour, opacity]) =>
          `<stop offset="${at}" stop-color="${colour}"${opacity === undefined ? '' : ` stop-opacity="${opacity}"`}/>`,
      )
      body.push(
        `<linearGradient id="${id}" x1="0" y1="0" x2="0" y2="1">${colours.join('')}</linearGradient>`,
        `<rect x="${x}" y="${y}" width="${w}" height="${h}" fill="url(#${id})"/>`,
      )
    },
    within: (d, draw) => {
      const id = `within${++names}`
      body.push(`<clipPath id="${id}"><path d="${d}"/></clipPath><g clip-path="url(#${id})">`)
      draw()
      body.push('</g>')
    },
    stamp: ({ name, draw }, x, y, scale) => {
      let id = stamps.get(name)
      if (!id) {
        id = `stamp${stamps.size + 1}`
        stamps.set(name, id)
        const strokes: string[] = []
        draw(pathPen((d, style) => void strokes.push(`<path d="${d}"${attributes(style)}/>`)))
        body.push(`<defs><g id="${id}">${strokes.join('')}</g></defs>`)
      }
      body.push(
        `<use href="#${id}" transform="translate(${x.toFixed(1)} ${y.toFixed(1)}) scale(${scale.toFixed(3)})"/>`,
      )
    },
    text: (x, y, words, { size, colour, anchor, isBold, isItalic }) =>
      void body.push(
        `<text x="${x.toFixed(1)}" y="${y.toFixed(1)}" font-size="${size}" fill="${colour}"${anchor && anchor !== 'start' ? ` text-anchor="${anchor}"` : ''}${isBold ? ' font-weight="600"' : ''}${isItalic ? ' font-style="italic"' : ''}>${escaped(words)}</text>`,
      ),
  }
  return {
    painter,
    written: () =>
      `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}"${wide ? ` width="${wide}"` : ''}${high ? ` height="${high}"` : ''} font-family="'Source Sans 3', sans-serif"><title>${escaped(title)}</title>${body.join('\n')}</svg>\n`,
  }
}

function attributes({ fill = 'none', line, width = 1, dash, opacity }: PathStyle): string {
  const of = [` fill="${fill}"`]
  if (fill !== 'none') of.push(' fill-rule="evenodd"')
  if (line) of.push(` stroke="${line}" stroke-width="${Math.round(100 * width) / 100}"`)
  if (dash) of.push(` stroke-dasharray="${dash.join(' ')}"`)
  if (opacity !== undefined) of.push(` opacity="${opacity}"`)
  return of.join('')
}
