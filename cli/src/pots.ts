import {
  absenceOf,
  addDays,
  civilDate,
  DAYS_OF_WATER,
  daysBetween,
  featureProperties,
  highsSolver,
  leadingWoody,
  linePots,
  lineSeasons,
  judgePots,
  library,
  lightAtPots,
  MOST_AWAY_DAYS,
  placesOn,
  potsStanding,
  pottingOn,
  windowOfStep,
  winterHere,
  type Climate,
  type PottedWoody,
  seasonOf,
  usualYearAt,
  type PotStanding,
  type Scene,
} from '@border/core'
import loadHighs from 'highs'
import { dirname, resolve } from 'node:path'
import { optionsOf, readJson } from './files.ts'
import { climateIn, gardenIn, placeNames, plantingsIn } from './plannedGarden.ts'
import { potsFile, type PotsFile } from './potsFile.ts'
import { BadInput, Misuse } from './say.ts'

/** `border pots FILE [--json]`: what containers hold, weigh and drink, and how they come through an absence, on files alone. */
export async function potsCommand(args: string[]): Promise<string> {
  const { values, positionals } = optionsOf(args, { json: { type: 'boolean' } })
  const [path, ...more] = positionals
  if (!path || more.length > 0) throw new Misuse('pots takes one file, and --json')
  const read = potsFile.safeParse(readJson(path))
  if (!read.success)
    throw new BadInput(read.error.issues.map((i) => `${path}: ${i.path.join('.') || 'file'}: ${i.message}`))
  const answer = await answerOf(path, read.data)
  return values.json ? JSON.stringify(answer) : JSON.stringify(answer, null, 2)
}

const taxonOf = new Map(library.map((t) => [t.botanical.toLowerCase(), t]))

async function answerOf(path: string, file: PotsFile): Promise<object> {
  const beside = (name: string) => resolve(dirname(path), name)
  const garden = file.plan === undefined ? undefined : gardenIn(beside(file.plan))
  const { latitude, longitude } = garden?.head ?? file
  if (latitude === undefined || longitude === undefined)
    throw new BadInput([`${path}: latitude and longitude are needed where there is no plan`])
  const on = file.on ?? civilDate(new Date(), garden?.head.timeZone ?? 'UTC')
  const { climate, days, source } = climateIn({ latitude, longitude }, file.weather && beside(file.weather))
  const pots = [
    ...potsOfPlan(path, file, garden, on, file.plantings && beside(file.plantings), latitude < 0),
    ...potsOfFile(path, file, on, latitude < 0),
  ]
  if (pots.length === 0) throw new BadInput([`${path}: neither plan nor pots holds a container`])
  const scene: Scene = garden?.scene ?? {
    latitudeDeg: latitude,
    longitudeDeg: longitude,
    northDeg: 0,
    obstructions: [],
  }
  const light = lightAtPots(scene, pots, on)
  const last = days.at(-1)!.day
  const about = {
    on,
    latitudeDeg: latitude,
    year: usualYearAt(climate, latitude),
    climate,
    record: days.filter((d) => daysBetween(d.day, last) < DAYS_OF_WATER),
    forecast: [],
    schools: file.schools,
  }
  const { absence } = file
  const span = absence && daysBetween(absence.from, absence.to)
  if (span !== undefined && (span < 1 || span > MOST_AWAY_DAYS))
    throw new BadInput([`${path}: absence: must be of one to ${MOST_AWAY_DAYS} days`])
  return {
    on,
    climate: source,
    coldestC: climate.meanAnnualMinimumC,
    pots: judgePots(pots, light, about).map(({ id, ahead: _none, ...judged }, i) => ({
      name: id,
      ...judged,
      light: light[i]!,
    })),
    pottingOn: await lineOf(pots, climate, on, latitude < 0),
    ...(absence && { absence: absenceOf(pots, light, about, absence) }),
  }
}

/** The containers of a plan that stand on a day, each under its name. */
function potsOfPlan(
  path: string,
  { fills }: PotsFile,
  garden: ReturnType<typeof gardenIn> | undefined,
  on: string,
  plantings: string | undefined,
  south: boolean,
): PotStanding[] {
  const standing = garden ? placesOn(garden.features, on) : []
  const names = new Set(standing.filter((p) => p.kind === 'container').map((p) => p.name))
  const unknown = Object.keys(fills).filter((name) => !names.has(name))
  if (unknown.length > 0)
    throw new BadInput(unknown.map((name) => `${path}: fills: the plan has no container called ${name}`))
  const growing = garden && plantings ? plantingsIn(garden, plantings, addDays(on, 1)) : []
  if (!garden) return []
  const nameOf = placeNames(garden)
  const pots = potsStanding(
    {
      places: standing,
      features: garden.features,
      plantings: growing.filter((p) => p.plantedOn <= on && p.livingCount > 0),
    },
    (place) => ofFile(fills[place.name]),
    { on, south },
  )
  return pots.map((p) => ({ ...p, id: nameOf(p.id) }))
}

/** What a file says of a container's fill, as it is judged by. */
const ofFile = (fill: Pick<PotsFile['pots'][number], 'mix' | 'season' | 'history' | 'checks'> | undefined) =>
  fill && {
    mix: fill.mix ?? fill.history.at(-1)?.mix,
    season: fill.season,
    known: {
      fills: fill.history.map((f) => ({ ...f, endedBy: f.endedBy ?? null })),
      checks: fill.checks.filter((c) => c.kind !== 'drained'),
      tests: fill.checks.filter((c) => c.kind === 'drained'),
      ratings: [],
      toCut: [],
    },
  }

/** Woody plants along the line of containers, each of those it names. */
async function lineOf(
  pots: readonly PotStanding[],
  climate: Climate,
  on: string,
  south: boolean,
): Promise<object[]> {
  const plants = pots.flatMap((pot): PottedWoody[] => {
    const largest = leadingWoody(pot.plantings)
    return largest ? [{ id: pot.id, taxon: largest.taxon, plantedOn: largest.plantedOn, potId: pot.id }] : []
  })
  if (plants.length === 0) return []
  const seasons = lineSeasons(on, south)
  const suitsGround = (p: PottedWoody) => winterHere(p.taxon, climate, 'bed') !== 'tender'
  const found = pottingOn(
    plants,
    linePots(pots),
    seasons,
    { on, south, suitsGround },
    highsSolver(await loadHighs()),
  )
  return plants.map((p, i) => ({
    taxon: p.taxon.botanical,
    pot: p.potId,
    steps: found.plants[i]!.steps.map(({ potId, ...step }) => ({
      ...step,
      to: potId ?? 'the ground',
      window: windowOfStep(p.taxon, climate, step),
    })),
  }))
}

/** Those that the file tells of itself, in the open. */
const potsOfFile = (path: string, { pots }: PotsFile, on: string, south: boolean): PotStanding[] =>
  pots.map((pot, i): PotStanding => {
    const at = `${path}: pots.${i}`
    const read = featureProperties.container.safeParse({
      kind: 'container',
      name: pot.name,
      ...pot.container,
    })
    if (!read.success)
      throw new BadInput(read.error.issues.map((f) => `${at}.container.${f.path.join('.')}: ${f.message}`))
    const plantings = pot.plants.map((p, k) => {
      const taxon = taxonOf.get(p.taxon.toLowerCase())
      if (!taxon) throw new BadInput([`${at}.plants.${k}.taxon: ${p.taxon} is not in the plant library`])
      return { taxon, count: p.count, role: p.role ?? null, plantedOn: p.plantedOn ?? on }
    })
    return {
      id: pot.name,
      properties: read.data,
      x: 0,
      y: 0,
      rimHeightM: read.data.rimHeightM,
      plantings,
      mix: pot.mix ?? pot.history.at(-1)?.mix ?? null,
      season: pot.season ?? seasonOf(plantings, on, south),
      known: ofFile(pot)?.known,
    }
  })
