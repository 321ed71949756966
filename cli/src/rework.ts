import {
  addDays,
  cheapestCover,
  civilDate,
  browsers,
  colourSchemes,
  barrowLoads,
  divisionOf,
  dripFor,
  doseTurns,
  groundM2,
  highsSolver,
  isIsoDate,
  laidGreedily,
  layerLitres,
  layOut,
  layoutScore,
  layers,
  library,
  milestones,
  offsetsFrom,
  palettesFor,
  placesOn,
  positionsOf,
  priceOf,
  regionsAt,
  relocate,
  relocationOf,
  seasonYearOf,
  shoppingList,
  sitedGarden,
  sizeAt,
  soilDose,
  soilTextures,
  suits,
  suitScore,
  waysOut,
  weeksOfShow,
  weekStarts,
  whereItSuits,
  withSpare,
  yearAt,
  type Candidate,
  type Climate,
  type Destination,
  type LayoutProblem,
  type Palette,
  type Planting,
  type SitedGarden,
  type SolveMilp,
  type Taxon,
} from '@border/core'
import loadHighs from 'highs'
import { dirname, resolve } from 'node:path'
import { z } from 'zod'
import { optionsOf, readJson } from './files.ts'
import { climateIn, gardenIn, plantingsIn, type PlannedGarden } from './plannedGarden.ts'
import { BadInput, Misuse } from './say.ts'

const name = z.string().min(1).max(200)
const day = z.string().refine(isIsoDate, 'must be a date like 2026-09-14')
const count = z.number().int().min(1).max(10_000)
const share = z.number().min(0).max(1)
const money = z.number().int().min(0).max(100_000_000)
const metres = z.number().positive().max(1000)

const point = z.tuple([z.number(), z.number()])

const pack = z.strictObject({ name, holds: count, price: money })

const destination = z.union([z.enum(waysOut), z.strictObject({ spot: name })])

/** The file that `border rework` reads: docs/formats.md. */
const reworkFile = z.strictObject({
  version: z.literal(1),
  plan: name.optional(),
  plantings: name.optional(),
  weather: name.optional(),
  on: day.optional(),
  fit: z.array(name).max(100).optional(),
  relocation: z
    .strictObject({
      leaving: z.array(name).min(1).max(200),
      decided: z.record(name, destination).default({}),
    })
    .optional(),
  palette: z
    .strictObject({
      place: name,
      leaving: z.array(name).default([]),
      areaM2: z.number().positive().max(10_000).optional(),
      tallestM: metres.default(2),
      kinds: z.strictObject({ least: count, most: count }).default({ least: 5, most: 12 }),
      drifts: z.enum(['odd', 'blocks', 'matrix']).default('odd'),
      budget: money.optional(),
      evergreenShare: share.optional(),
      layerShares: z.partialRecord(z.enum(layers), share).optional(),
      noBareWeek: z.boolean().optional(),
      scented: z.number().int().min(0).max(50).optional(),
      wildlife: z.number().int().min(0).max(50).optional(),
      scheme: z.strictObject({ kind: z.enum(colourSchemes), hue: z.number().min(0).max(360) }).optional(),
      harmlessTo: z.array(z.enum(['people', 'cats', 'dogs', 'horses'])).optional(),
      leftBy: z.array(z.enum(browsers)).optional(),
      seasonal: z.boolean().optional(),
      locked: z.array(name).optional(),
      barred: z.array(name).optional(),
      prices: z.record(name, money).default({}),
      have: z.array(z.strictObject({ taxon: name, count })).default([]),
    })
    .optional(),
  layout: z
    .strictObject({
      place: name,
      drifts: z
        .array(z.strictObject({ taxon: name, count }))
        .min(1)
        .max(60),
      viewedFrom: z.array(z.number().min(0).max(360)).max(2).optional(),
      seed: z.number().int().min(0).default(1),
      baseLine: z.tuple([point, point]).optional(),
    })
    .optional(),
  division: z
    .array(
      z.strictObject({
        taxon: name,
        plants: count.default(1),
        shoots: count.optional(),
        acrossM: metres.optional(),
        years: z.number().min(0).max(200),
        inSeason: z.boolean().default(true),
      }),
    )
    .optional(),
  quantities: z
    .strictObject({
      plants: z
        .array(
          z.strictObject({
            name,
            count,
            spareShare: share.optional(),
            packs: z.array(pack).min(1),
          }),
        )
        .default([]),
      shopping: z
        .strictObject({
          needs: z.array(z.strictObject({ item: name, count, spareShare: share.optional() })).min(1),
          offers: z.array(
            z.strictObject({ supplier: name, item: name, packs: z.array(pack).min(1), pricedOn: day }),
          ),
        })
        .optional(),
      layers: z
        .array(
          z.strictObject({
            name,
            areaM2: z.number().positive(),
            depthM: metres,
            bags: z.array(pack).default([]),
          }),
        )
        .default([]),
      soil: z
        .strictObject({
          areaM2: z.number().positive(),
          ph: z.number().min(3).max(10),
          toPh: z.number().min(3).max(10),
          texture: z.enum(soilTextures).default('loam'),
          aluminium: z.boolean().default(false),
        })
        .optional(),
      drip: z
        .strictObject({
          areaM2: z.number().positive(),
          lineSpacingM: metres,
          emitterSpacingM: metres,
          emitterLitresPerHour: z.number().positive(),
          mm: z.number().positive(),
          tapLitresPerHour: z.number().positive().optional(),
        })
        .optional(),
    })
    .optional(),
  growth: z
    .array(
      z.strictObject({
        taxon: name,
        spacingM: metres.optional(),
        years: z.array(z.number().min(0).max(100)).default([1, 3, 5, 10]),
      }),
    )
    .optional(),
})
type ReworkFile = z.infer<typeof reworkFile>

/** `border rework FILE [--json]`: what a rework asks for, part by part, on files alone. */
export async function reworkCommand(args: string[]): Promise<string> {
  const { values, positionals } = optionsOf(args, { json: { type: 'boolean' } })
  const [path, ...more] = positionals
  if (!path || more.length > 0) throw new Misuse('rework takes one file, and --json')
  const read = reworkFile.safeParse(readJson(path))
  if (!read.success)
    throw new BadInput(read.error.issues.map((i) => `${path}: ${i.path.join('.') || 'file'}: ${i.message}`))
  const answer = await new Reworked(path, read.data).answer()
  return values.json ? JSON.stringify(answer) : JSON.stringify(answer, null, 2)
}

const taxonOf = new Map(library.map((t) => [t.botanical.toLowerCase(), t]))

/** One file's questions and what they are asked of. */
class Reworked {
  constructor(
    private readonly path: string,
    private readonly file: ReworkFile,
  ) {}

  async answer(): Promise<Record<string, unknown>> {
    const { fit, relocation, palette, layout, division, quantities, growth } = this.file
    const isSited = fit || relocation || palette || layout
    const site = isSited && this.site()
    // Loaded only where something is solved: it takes a second to be made ready.
    const solve = (relocation ?? palette) && highsSolver(await loadHighs())
    return {
      ...(site && { on: site.on, climate: site.climateSource }),
      ...(fit && site && { fit: fit.map((t) => fitAnswer(this.taxon('fit', t), site.garden)) }),
      ...(relocation && site && solve && { relocation: this.relocated(relocation, site, solve) }),
      ...(palette && site && solve && { palette: this.palettes(palette, site, solve) }),
      ...(layout && site && { layout: this.laidOut(layout, site) }),
      ...(division && {
        division: division.map((d) => ({
          taxon: d.taxon,
          ...divisionOf({ ...d, taxon: this.taxon('division', d.taxon) }),
        })),
      }),
      ...(quantities && { quantities: quantitiesAnswer(quantities) }),
      ...(growth && { growth: growth.map((g) => growthAnswer(this.taxon('growth', g.taxon), g)) }),
    }
  }

  private fault(says: string): BadInput {
    return new BadInput([`${this.path}: ${says}`])
  }

  private taxon(part: string, botanical: string): Taxon {
    const found = taxonOf.get(botanical.toLowerCase())
    if (!found) throw this.fault(`${part}: no kind is called ${botanical}`)
    return found
  }

  private beside(file: string): string {
    return resolve(dirname(this.path), file)
  }

  private site(): Site {
    const { plan, plantings, weather, on } = this.file
    if (!plan) throw this.fault('plan: fit, relocation, palette and layout are asked of a plan')
    const planned = gardenIn(this.beside(plan))
    const day = on ?? civilDate(new Date(), planned.head.timeZone)
    const { climate, source } = climateIn(planned.head, weather && this.beside(weather))
    const { latitude, longitude } = planned.head
    return {
      on: day,
      planned,
      climate,
      climateSource: source,
      standing: plantings ? plantingsIn(planned, this.beside(plantings), day) : [],
      garden: sitedGarden(
        {
          at: planned.head,
          features: planned.features,
          places: placesOn(planned.features, day),
          climate,
          regions: regionsAt({ latitude, longitude }),
        },
        day,
      ),
    }
  }

  private tagged(part: string, tags: readonly string[], standing: readonly Planting[]): Planting[] {
    return tags.map((tag) => {
      const found = standing.find((p) => p.tag === tag)
      if (!found) throw this.fault(`${part}: nothing has the tag ${tag}`)
      return found
    })
  }

  private relocated(
    asked: NonNullable<ReworkFile['relocation']>,
    { garden, standing }: Site,
    solve: SolveMilp,
  ) {
    const leaving = this.tagged('relocation.leaving', asked.leaving, standing)
    const { problem, spots, suitingOf } = relocationOf(garden, standing, new Set(leaving.map((p) => p.id)))
    const decided = Object.fromEntries(
      Object.entries(asked.decided).map(([tag, to]): [string, Destination] => {
        this.tagged('relocation.decided', [tag], leaving)
        if (typeof to === 'string') return [tag, { to }]
        if (!spots.some((s) => s.id === to.spot))
          throw this.fault(`relocation.decided: there is no spot ${to.spot}`)
        return [tag, { to: 'spot', spotId: to.spot }]
      }),
    )
    const whole = { ...problem, decided }
    const found = relocate(whole, solve)
    if (!found.ok)
      return {
        ok: false,
        says:
          found.why === 'limit'
            ? 'It could not be worked out.'
            : 'What is decided leaves no room for itself.',
      }
    return {
      ok: true,
      cost: found.cost,
      gap: found.gap,
      spots: spots.map(({ id, place, x, y, radiusM, vacatedBy }) => ({
        id,
        place: place.name,
        x,
        y,
        radiusM,
        vacatedBy,
      })),
      destinations: found.destinations.map(({ plantingId, destination, cost }) => {
        const planting = leaving.find((p) => p.id === plantingId)!
        return {
          tag: planting.tag,
          taxon: planting.taxon.botanical,
          ...destination,
          cost,
          suiting: suitingOf(planting, destination) ?? null,
          // What every other way out would cost the whole.
          prices: Object.fromEntries(
            waysOut.map((to) => [to, priceOf(whole, found, plantingId, { to }, solve) ?? null]),
          ),
        }
      }),
    }
  }

  private laidOut(asked: NonNullable<ReworkFile['layout']>, { planned, on, climate }: Site) {
    const feature = planned.features.find(
      (f) => f.kind === 'bed' && f.name.toLowerCase() === asked.place.toLowerCase(),
    )
    if (!feature) throw this.fault(`layout.place: the plan has no bed called ${asked.place}`)
    const places = placesOn(planned.features, on).filter((p) => p.id === feature.id)
    if (places.length === 0) throw this.fault(`layout.place: ${asked.place} is not there on ${on}`)
    const [of] = sitedGarden(
      { at: planned.head, features: planned.features, places, climate },
      on,
      LAID_M,
    ).places
    const { stations, stationM2 } = of!
    const viewedFrom = asked.viewedFrom ?? (feature.properties.viewedFrom as number[] | undefined) ?? []
    const problem: LayoutProblem = {
      cells: stations.map(({ x, y }) => ({ x, y })),
      cellM2: stationM2,
      viewedFrom: viewedFrom.slice(0, 2),
      drifts: asked.drifts.map((d, i) => {
        const taxon = this.taxon('layout.drifts', d.taxon)
        return {
          id: `${i + 1}`,
          taxon,
          count: d.count,
          areaM2: groundM2(d.count, taxon.spacingM),
          fit: Float32Array.from(stations, (s) => suitScore(taxon, s)),
        }
      }),
    }
    const wanted = problem.drifts.reduce((sum, d) => sum + d.areaM2, 0)
    const groundM2InAll = stations.length * stationM2
    if (wanted > MOST_CROWDED * groundM2InAll)
      throw this.fault(
        `layout.drifts: they take ${wanted.toFixed(1)} m² at their spacing, and ${asked.place} has ${groundM2InAll.toFixed(1)} m²`,
      )
    const run = layOut(problem, asked.seed)
    let step = run.next()
    while (!step.done) step = run.next()
    const { assignment, score } = step.value
    const plants = positionsOf(problem, assignment)
    return {
      score,
      quickHand: layoutScore(problem, laidGreedily(problem)).total,
      drifts: problem.drifts.map((d) => ({
        id: d.id,
        taxon: d.taxon.botanical,
        count: d.count,
        areaM2: d.areaM2,
      })),
      plants,
      ...(asked.baseLine && { offsets: offsetsFrom(plants, ...asked.baseLine) }),
    }
  }

  private palettes(asked: NonNullable<ReworkFile['palette']>, site: Site, solve: SolveMilp) {
    const { garden, standing, on, climate } = site
    const of = garden.places.find((p) => p.place.name.toLowerCase() === asked.place.toLowerCase())
    if (!of) throw this.fault(`palette.place: the plan has no bed or pot called ${asked.place}`)
    for (const part of ['locked', 'barred'] as const)
      for (const named of asked[part] ?? []) this.taxon(`palette.${part}`, named)
    const gone = new Set(this.tagged('palette.leaving', asked.leaving, standing).map((p) => p.id))
    const stays = standing
      .filter((p) => p.placeId === of.place.id && !gone.has(p.id))
      .map((p) => ({ taxon: p.taxon, areaM2: groundM2(p.livingCount, p.taxon.spacingM) }))
    const south = site.planned.head.latitude < 0
    const season = seasonYearOf(addDays(on, 180), south)
    const weeks = weekStarts(weeksOfShow(climate, season, south))
    const have = asked.have.map((h): Candidate => ({
      taxon: this.taxon('palette.have', h.taxon),
      from: 'bench',
      fit: 0,
      price: 0,
      most: h.count,
    }))
    const inHand = new Set(have.map((h) => h.taxon))
    const candidates = [
      ...have,
      ...library
        .filter((t) => !inHand.has(t))
        .map((taxon): Candidate => ({
          taxon,
          from: 'library',
          fit: 0,
          price: asked.prices[taxon.botanical] ?? null,
        })),
    ].flatMap((c): Candidate[] => {
      const fit = middleFit(c.taxon, of, garden)
      return fit >= LEAST_FIT || asked.locked?.includes(c.taxon.botanical) ? [{ ...c, fit }] : []
    })
    const taken = stays.reduce((sum, s) => sum + s.areaM2, 0)
    const areaM2 = asked.areaM2 ?? Math.max(0, of.place.areaM2 - taken)
    if (areaM2 < LEAST_GROUND_M2)
      throw this.fault(`palette: what stays in ${of.place.name} leaves no ground to plant`)
    const { place: _, leaving: __, prices: ___, have: ____, ...wishes } = asked
    const found = palettesFor(
      candidates,
      { ...wishes, areaM2, stays, weeks, season, year: yearAt(climate) },
      solve,
    )
    if (found.ok)
      return { ok: true, areaM2, weeks, candidates: candidates.length, palettes: found.palettes.map(told) }
    if (found.why === 'limit') return { ok: false, says: 'It could not be worked out.' }
    return {
      ok: false,
      says: 'These wishes contradict each other.',
      wishes: found.wishes,
      giveUp: found.giveUp.map(({ wish, palette }) => ({ wish, palette: told(palette) })),
    }
  }
}

interface Site {
  on: string
  planned: PlannedGarden
  climate: Climate
  climateSource: string
  standing: Planting[]
  garden: SitedGarden
}

/** A bed is laid out by cells so wide; drifts may want so much more ground than there is before they are refused. */
const LAID_M = 0.25
const MOST_CROWDED = 1.1

/** What would only just live there is not proposed; less ground than this is not planted. */
const LEAST_FIT = 0.7
const LEAST_GROUND_M2 = 0.25

/** How a kind would do in the middle half of a place: there is room for it somewhere, and it need not be the best spot. */
function middleFit(taxon: Taxon, of: SitedGarden['places'][number], garden: SitedGarden): number {
  const scores = of.stations.map((s) => suits(taxon, of.place, s, garden).score).sort((a, b) => b - a)
  return scores[Math.floor(scores.length / 4)] ?? 0
}

const fitAnswer = (taxon: Taxon, garden: SitedGarden) => ({
  taxon: taxon.botanical,
  places: whereItSuits(taxon, garden).map(({ place, scores, best }) => ({
    place: place.name,
    best: { x: best.x, y: best.y, ...best.suiting },
    /** Share of its ground where it would do well. */
    goodShare: scores.filter((s) => s >= LEAST_FIT).length / scores.length,
  })),
})

const told = ({ items, ...rest }: Palette) => ({
  ...rest,
  items: items.map(({ candidate: { taxon, from, fit, price }, ...of }) => ({
    taxon: taxon.botanical,
    from,
    fit,
    price,
    ...of,
  })),
})

function quantitiesAnswer({
  plants,
  shopping,
  layers: spread,
  soil,
  drip,
}: NonNullable<ReworkFile['quantities']>) {
  const dose = soil && soilDose(soil.ph, soil.toPh, soil.texture)
  return {
    plants: plants.map(({ name: of, count: n, spareShare, packs }) => {
      const wanted = withSpare(n, spareShare)
      return { name: of, count: n, wanted, ...cheapestCover(wanted, packs) }
    }),
    layers: spread.map(({ name: of, areaM2, depthM, bags }) => {
      const litres = layerLitres(areaM2, depthM)
      return {
        name: of,
        litres,
        barrows: barrowLoads(litres),
        bags: bags.length > 0 ? (cheapestCover(litres, bags) ?? null) : null,
      }
    }),
    ...(shopping && { shopping: shoppingList(shopping.needs, shopping.offers) }),
    ...(soil && {
      soil: dose
        ? (({ with: what, inAllKgM2, turns }) => ({
            with: what,
            kgInAll: inAllKgM2 * soil.areaM2,
            turns: turns.map((t) => ({ kg: t.kgM2 * soil.areaM2, afterMonths: t.afterMonths })),
          }))(doseTurns(dose, soil.aluminium ? 'aluminium sulphate' : undefined))
        : null,
    }),
    ...(drip && { drip: dripFor(drip.areaM2, drip, drip.mm, drip.tapLitresPerHour) }),
  }
}

const growthAnswer = (
  taxon: Taxon,
  { spacingM = taxon.spacingM, years }: { spacingM?: number | undefined; years: number[] },
) => ({
  taxon: taxon.botanical,
  spacingM,
  sizes: years.map((y) => ({ years: y, ...sizeAt(taxon, y) })),
  ...milestones(taxon, spacingM),
})
