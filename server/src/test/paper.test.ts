import type { GardenView, GroundView, LookView, PlantingView, ReworkView, SaidScheme } from '@border/contract'
import { CELL_M, groundWritten, paperMm, papers } from '@border/core'
import { randomUUID } from 'node:crypto'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Sheets } from '../paper/document.ts'
import { look, write } from './asked.ts'
import { amending } from './edits.ts'
import { Client, practiceWithGarden, type TestPractice } from './practice.ts'
import { beginning } from './schemes.ts'

const TODAY_MS = Date.parse('2026-09-15T10:00:00Z')
let now = TODAY_MS
let practice: TestPractice
let garden: GardenView
let courtId: string
let path: string
/** What stays where all else leaves. */
let kept: PlantingView
beforeAll(async () => {
  practice = await practiceWithGarden(undefined, () => now)
  garden = await look<GardenView>(practice, '')
  courtId = garden.features.find((f) => f.name === 'Court border')!.id
  const { stations } = await look<GroundView>(practice, `/features/${courtId}/ground`)
  const middle = stations.reduce((sum, s) => sum + s.x, 0) / stations.length
  const [a, b] = groundWritten(
    { stations },
    CELL_M,
    Int16Array.from(stations, (s) => (s.x < middle ? 0 : 1)),
    2,
  )
  const drift = (botanical: string, count: number, ground: typeof a): SaidScheme['drifts'][number] => ({
    id: randomUUID(),
    botanical,
    count,
    from: 'library',
    ground: ground!,
    isDrawn: false,
  })
  // The ferns stand nearer, a few metres behind it.
  const ferns = garden.plantings.find((p) => p.tag === 'W-07')!
  await write(
    practice,
    '/plantings/amend',
    amending(ferns.id, {
      tag: ferns.tag,
      taxonBotanical: ferns.taxon.botanical,
      placeId: ferns.placeId,
      count: ferns.livingCount,
      plantedOn: ferns.plantedOn,
      source: 'bought',
      x: 3,
      y: 21.5,
    }),
  )
  const [first, ...rest] = garden.plantings.filter((p) => p.placeId === courtId)
  kept = first!
  const leaving = rest.map((p) => ({
    plantingId: p.id,
    how: 'leaves' as const,
    to: { to: 'gone' as const },
    worth: 1,
  }))
  const rework = beginning(courtId, {
    name: 'Kühl & hell <1>',
    leaving,
    drifts: [drift('Hosta sieboldiana', 5, a), drift('Helenium autumnale', 7, b)],
    between: [{ id: randomUUID(), botanical: 'Galanthus nivalis', count: 20, from: 'library' }],
    filler: 'Impatiens walleriana',
  })
  await write(practice, '/reworks', rework)
  path = `/gardens/${practice.gardenId}/reworks/${rework.id}/schemes/${rework.schemes[0]!.id}`
})
afterAll(() => practice.stop())

const fetched = async (rest: string, as = practice.head): Promise<Buffer> => {
  const answer = await as.get(`${path}${rest}`).buffer(true).responseType('blob')
  expect([answer.status, answer.status === 200 ? '' : String(answer.body)]).toEqual([200, ''])
  return answer.body as Buffer
}

/** What another reader of such documents finds in one. */
async function read(pdf: Buffer) {
  const { getDocument, OPS } = await import('pdfjs-dist/legacy/build/pdf.mjs')
  const document = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise
  const pages = await Promise.all(
    Array.from({ length: document.numPages }, async (_, i) => {
      const page = await document.getPage(i + 1)
      const { items } = await page.getTextContent()
      const { fnArray } = await page.getOperatorList()
      return {
        size: page.view.slice(2) as [number, number],
        words: items.map((t) => ('str' in t ? t.str : '')).join(' '),
        forms: fnArray.filter((f) => f === OPS.paintFormXObjectBegin).length,
      }
    }),
  )
  return { pages, words: pages.map((p) => p.words).join(' ') }
}

describe('a scheme as PDF', () => {
  it.each(papers)('on %s has the size of the sheet, and all that a client signs', async (paper) => {
    const { pages, words } = await read(await fetched(`/paper.pdf?paper=${paper}&on=2027-07-15`))
    for (const { size } of pages)
      size.forEach((pt, i) => expect(pt).toBeCloseTo((paperMm[paper][i]! * 72) / 25.4, 0))
    expect(words).toContain('Court border: Kühl & hell <1>')
    expect(words).toMatch(/scale 1 : \d+/)
    for (const kind of [
      '5 Hosta sieboldiana',
      '7 Helenium autumnale',
      '20 Galanthus nivalis',
      `stays: ${kept.livingCount} ${kept.taxon.botanical}`,
    ])
      expect(words).toContain(kind)
    expect(words).toContain('week of 15 July, 3 years after planting')
    expect(words).toContain('Shopping list')
    expect(words).toContain(`Page ${pages.length} of ${pages.length}`)
    // Snowdrops are under the ground in July: the twelve others, and what stays, are seen.
    const seen = pages.reduce((sum, p) => sum + p.forms, 0)
    expect(seen).toBeGreaterThanOrEqual(12)
  })

  it('tells a client no prices where they are not to be told, and every position all the same', async () => {
    const { words } = await read(await fetched('/paper.pdf?prices=no&on=2027-03-01'))
    expect(words).not.toMatch(/Shopping list|price|three years/)
    const rows = words.split('Where each plant is set')[1]!.match(/\d+\.\d\d m/g)!
    // Along and off, of twelve plants and of twenty bulbs in pockets of seven; the tape and where it begins.
    expect(rows).toHaveLength(2 * (12 + 3) + 3)
  })

  it('is read by a keeper and by nobody else, and refuses what it is not asked in', async () => {
    const answer = await practice.head.get(`${path}/paper.pdf?paper=A5`)
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringContaining('paper')])
    const none = await practice.head.get(`${path.replace(/schemes\/.*/, `schemes/${randomUUID()}`)}/plan.svg`)
    expect(none.status).toBe(404)
    const keeper = await practice.join('Keeper', 'keeper')
    expect((await fetched('/plan.svg', keeper)).length).toBeGreaterThan(1000)
    const stranger = await practice.join('Stranger', null)
    expect((await stranger.get(`${path}/view.svg`)).status).toBe(404)
  })
})

describe('its drawings as SVG', () => {
  it('are pictures that others can draw: the plan on its sheet, the view with more colours in August than in January', async () => {
    const plan = await fetched('/plan.svg?paper=A3')
    const { format, width, height } = await sharp(plan).metadata()
    expect(format).toBe('svg')
    // Within the sheet, less a white edge.
    expect(width! / height!).toBeGreaterThan(1)
    expect(plan.toString()).toContain('width="400mm"')
    const coloured = async (on: string) => {
      const { channels } = await sharp(await fetched(`/view.svg?on=${on}&years=3`)).stats()
      return channels.map((c) => c.stdev).reduce((a, b) => a + b, 0)
    }
    const [summer, winter] = [await coloured('2027-08-01'), await coloured('2027-01-20')]
    expect(summer).toBeGreaterThan(winter)
  })

  it('have an oval’s ground where an oval is drawn, by counting points of the picture', async () => {
    const { ovalPath, svgPainter } = await import('@border/core')
    const { painter, written } = svgPainter({ width: 200, height: 200 }, 'Oval')
    painter.path(ovalPath(100, 90, 60, 25, 0.6), { fill: '#000000' })
    const { data } = await sharp(Buffer.from(written()))
      .extractChannel('alpha')
      .raw()
      .toBuffer({ resolveWithObject: true })
    const covered = data.reduce((sum, a) => sum + a / 255, 0)
    expect(covered / (Math.PI * 60 * 25)).toBeCloseTo(1, 2)
  })
})

describe('a client’s link', () => {
  const make = async (until: string | null) =>
    (await write<{ token: string | null }>(practice, `${inGarden()}/link`, { until })).token
  const inGarden = () => path.slice(path.indexOf('/reworks'))
  const client = () => new Client(practice.app)
  const lookAt = async (token: string, rest = '') => client().get(`/looks/${token}${rest}`)

  it('shows whoever has it the scheme without prices, drawn, and nothing else', async () => {
    await practice
      .db('features')
      .where({ garden_id: practice.gardenId })
      .update({ properties: practice.db.raw(`properties || '{"note":"Key under the third pot"}'`) })
    const token = (await make('2026-12-01'))!
    const { status, body } = await lookAt(token)
    expect(status).toBe(200)
    expect(JSON.stringify(body)).not.toContain('Key under')
    const seen = body as LookView
    expect(seen).toMatchObject({ place: 'Court border', scheme: 'Kühl & hell <1>', until: '2026-12-01' })
    expect(seen.comes.map((k) => [k.mark, k.count, k.botanical])).toEqual([
      ['A', 5, 'Hosta sieboldiana'],
      ['B', 7, 'Helenium autumnale'],
      ['C', 20, 'Galanthus nivalis'],
    ])
    expect(seen.stays.map((k) => k.botanical)).toEqual([kept.taxon.botanical])
    const file = async (rest: string) =>
      (await client().get(`/looks/${token}${rest}`).buffer(true).responseType('blob')).body as Buffer
    // Twelve plants and twenty bulbs come in; what stays is there, each with its kind; and the wall behind.
    const { livingCount } = kept
    expect(seen.plants).toHaveLength(12 + 20 + livingCount)
    // So do the annuals of each year, fewer as the rest grows, and what stands behind in other places; each kind is sent once.
    const fillers = seen.fillers.map((f) => f.plants.length)
    expect(seen.fillers.map((f) => f.years)).toEqual([1, 2, 3, 5, 10])
    expect(fillers).toEqual(fillers.toSorted((a, b) => b - a))
    const elsewhere = garden.plantings.filter((p) => p.placeId !== courtId)
    const beyond = new Set(seen.beyond.plants.map((p) => p.groupId))
    expect([...beyond]).toEqual([elsewhere.find((p) => p.tag === 'W-07')!.id])
    expect(seen.beyond.beds.length).toBe(1)
    expect(Object.keys(seen.beyond.plants[0]!).filter((k) => k !== 'surfaceM')).toEqual(
      Object.keys(seen.plants[0]!),
    )
    const drawn = [...seen.plants, ...seen.fillers.flatMap((f) => f.plants), ...seen.beyond.plants]
    expect(seen.taxa.map((t) => t.botanical).toSorted()).toEqual(
      [...new Set(drawn.map((p) => p.botanical))].toSorted(),
    )
    expect(seen.behind.length).toBeGreaterThan(0)
    expect(seen.behind.every((f) => ['building', 'wall', 'fence', 'hedge'].includes(f.kind))).toBe(true)
    expect((await sharp(await file('/plan.svg')).metadata()).format).toBe('svg')
    const { words } = await read(await file('/paper.pdf?paper=Letter'))
    expect(words).toContain('5 Hosta sieboldiana')
    expect(words).not.toMatch(/Shopping list|over three years/)
    expect((await client().get(path)).status).not.toBe(200)
  })

  it('is kept as a hash, ends with the day, is replaced by a newer one, and can be withdrawn', async () => {
    const first = (await make('2026-12-01'))!
    const second = (await make('2026-12-01'))!
    expect(second).not.toBe(first)
    const rows = await practice.db('scheme_links')
    expect(JSON.stringify(rows)).not.toContain(second)
    expect((await lookAt(first)).status).toBe(404)
    expect((await lookAt(second)).status).toBe(200)
    const linked = async () => (await look<ReworkView[]>(practice, '/reworks'))[0]!.schemes[0]!.link
    expect(await linked()).toMatchObject({ until: '2026-12-01' })
    now = Date.parse('2026-12-02T10:00:00Z')
    expect((await lookAt(second)).status).toBe(404)
    now = TODAY_MS
    expect((await lookAt(second)).status).toBe(200)
    await make(null)
    expect(await linked()).toBeNull()
    expect((await lookAt(second, '/plan.svg')).status).toBe(404)
  })

  it('goes with its scheme, is made by a head gardener alone, and for days that can be', async () => {
    const link = `${path}/link`
    for (const [until, says] of [
      ['2026-09-14', 'past'],
      ['2029-01-01', 'two years'],
      ['2026-02-30', 'until'],
    ] as const) {
      const { status, body } = await practice.head.post(link, { until })
      expect([status, JSON.stringify(body)]).toEqual([422, expect.stringContaining(says)])
    }
    const keeper = await practice.join('Other', 'keeper')
    expect((await keeper.post(link, { until: '2026-12-01' })).status).toBe(403)
    const token = (await make('2026-12-01'))!
    await write(practice, `${inGarden()}/withdraw`)
    expect((await lookAt(token)).status).toBe(404)
    await write(practice, `${inGarden()}/restore`)
    expect((await lookAt(token)).status).toBe(200)
  })
})

describe('a sheet', () => {
  it('cuts words short where there is no room, and numbers its pages', async () => {
    const sheets = new Sheets('A4', { title: 'A long '.repeat(40), aside: 'Garden', foot: 'Agreed' })
    sheets.page()
    sheets.page()
    const { pages } = await read(Buffer.from(await sheets.end()))
    expect(pages.map((p) => /Page \d of \d/.exec(p.words)?.[0])).toEqual(['Page 1 of 2', 'Page 2 of 2'])
    expect(pages[0]!.words).toMatch(/A long .*…/)
    expect(pages[0]!.words.length).toBeLessThan(300)
  })
})
