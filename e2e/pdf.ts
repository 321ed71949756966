/**
 * A document of pages of one size, each with what is drawn on it, in the operators of PDF 1.4.
 *
 * @param size of a page, points of 1/72 inch
 */
export function pdfOf(size: readonly [number, number], pages: readonly string[]): Buffer {
  const kids = pages.map((_, i) => `${3 + 2 * i} 0 R`).join(' ')
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    `<< /Type /Pages /Kids [${kids}] /Count ${pages.length} >>`,
    ...pages.flatMap((drawn, i) => [
      `<< /Type /Page /Parent 2 0 R /MediaBox [0 0 ${size.join(' ')}] /Contents ${4 + 2 * i} 0 R /Resources << >> >>`,
      `<< /Length ${drawn.length} >>\nstream\n${drawn}\nendstream`,
    ]),
  ]
  let text = '%PDF-1.4\n'
  const at = objects.map((object, i) => {
    const begins = text.length
    text += `${i + 1} 0 obj\n${object}\nendobj\n`
    return begins
  })
  const table = text.length
  text += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n`
  text += at.map((offset) => `${String(offset).padStart(10, '0')} 00000 n \n`).join('')
  text += `trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`
  return Buffer.from(text, 'latin1')
}
