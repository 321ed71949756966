import {
  barrowLoads,
  bedLayout,
  CELL_M,
  cheapestCover,
  civilDate,
  divisionOf,
  dripFor,
  doseTurns,
  finished,
  GOOD_FIT,
  groundM2,
  highsSolver,
  laidGreedily,
  layerLitres,
  layOut,
  layoutScore,
  library,
  milestones,
  offeredFor,
  offsetsFrom,
  palettesFor,
  placesOn,
  positionsOf,
  priceOf,
  regionsAt,
  relocate,
  relocationOf,
  shoppingList,
  sitedGarden,
  sizeAt,
  soilDose,
  waysOut,
  whereItSuits,
  withMatrixCounted,
  wishesFor,
  withSpare,
  type Climate,
  type Destination,
  type Palette,
  type PlaceToPlant,
  type Planting,
  type SitedGarden,
  type SolveMilp,
  type Taxon,
} from '@border/core'
import loadHighs from 'highs'
import { dirname, resolve } from 'node:path'
import { optionsOf, readJson } from './files.ts'
import { climateIn, gardenIn, plantingsIn, type PlannedGarden } from './plannedGarden.ts'
import { reworkFile, type ReworkFile } from './reworkFile.ts'
import { BadInput, Misuse } from './say.ts'

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
            : 'There is not room for all that is decided.',
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
      CELL_M,
    ).places
    const viewedFrom = asked.viewedFrom ?? (feature.properties.viewedFrom as number[] | undefined) ?? []
    const drifts = asked.drifts.map((d) => ({
      count: 1,
      ...d,
      taxon: this.taxon('layout.drifts', d.taxon),
    }))
    const asWished = bedLayout(of!, CELL_M, drifts, viewedFrom.slice(0, 2))
    const wanted = asWished.drifts.reduce((sum, d) => sum + d.areaM2, 0)
    const { areaM2 } = of!.place
    if (wanted > MOST_CROWDED * areaM2)
      throw this.fault(
        `layout.drifts: they take ${wanted.toFixed(1)} m² at their spacing, and ${asked.place} has ${areaM2.toFixed(1)} m²`,
      )
    const { assignment, score } = finished(layOut(asWished, asked.seed))
    // Of what runs through the rest as many as its ground takes.
    const problem = withMatrixCounted(asWished, assignment)
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
    const isSouthern = site.planned.head.latitude < 0
    const place: PlaceToPlant = { garden: { ...garden, climate }, of, isSouthern, on, stays }
    const have = asked.have.map((h) => ({
      taxon: this.taxon('palette.have', h.taxon),
      from: 'bench' as const,
      price: 0,
      most: h.count,
    }))
    const { place: _, leaving: __, prices, have: ___, ...wished } = asked
    const wishes = wishesFor(place, wished)
    if (!wishes) throw this.fault(`palette: what stays in ${of.place.name} leaves no ground to plant`)
    const candidates = offeredFor(place, have, library, (kind) => prices[kind] ?? null, asked.locked)
    const found = palettesFor(candidates, wishes, solve)
    const { areaM2, weeks } = wishes
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

/** Drifts may want so much more ground than there is before they are refused: they interlock. */
const MOST_CROWDED = 1.1

const fitAnswer = (taxon: Taxon, garden: SitedGarden) => ({
  taxon: taxon.botanical,
  places: whereItSuits(taxon, garden).map(({ place, scores, best }) => ({
    place: place.name,
    best: { x: best.x, y: best.y, ...best.suiting },
    /** Share of its ground where it would do well. */
    goodShare: scores.filter((s) => s >= GOOD_FIT).length / scores.length,
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
