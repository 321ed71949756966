import {
  bloomGaps,
  bloomOfPlace,
  bloomsSeen,
  bestOfPlace,
  cannotTell,
  countHistory,
  earlinessOfSeason,
  fieldsBetween,
  gardenDay,
  gardenRecord,
  hoursOf,
  lightClass,
  likelyRange,
  looksOfShow,
  readObservations,
  seasonYearOf,
  sharesSaid,
  taxonRecords,
  tenths,
  weeksOfShow,
  yearAt,
  type Expected,
  type GardenRecord,
  type LightClass,
  type Planting,
  type RecordModel,
  type Seen,
  type YearOfSeason,
  writeTable,
} from '@border/core'
import { group } from 'd3-array'
import { join } from 'node:path'
import { accepted, dayOption, optionsOf, readText } from './files.ts'
import {
  climateIn,
  gardenIn,
  placeNames,
  plantingsIn,
  weatherIn,
  type FileClimate,
  type PlannedGarden,
} from './plannedGarden.ts'
import { BadInput, Misuse } from './say.ts'

/** `border record FOLDER [--season YEAR] [--on DAY] [--json]`: the record of a garden's folder, as the screen has it. */
export function recordCommand(args: string[]): string {
  const { values, positionals } = optionsOf(args, {
    season: { type: 'string' },
    on: { type: 'string' },
    json: { type: 'boolean' },
  })
  const [folder, ...more] = positionals
  if (!folder || more.length > 0)
    throw new Misuse('record takes one folder with plan.geojson, plantings.csv and observations.csv in it')
  const garden = gardenIn(join(folder, 'plan.geojson'))
  const today =
    values.on === undefined ? gardenDay(null, garden.head.timeZone, Date.now()) : dayOption('on', values.on)
  const plantings = plantingsIn(garden, join(folder, 'plantings.csv'), today)
  const seen = looksIn(join(folder, 'observations.csv'), plantings, today)
  const climate = climateIn(garden.head, weatherIn(folder))
  const asked = values.season === undefined ? undefined : seasonOption(values.season)
  const found = recordOf({ garden, plantings, seen, climate, today }, asked)
  return values.json ? JSON.stringify(found) : inWords(found)
}

function seasonOption(text: string): number {
  if (!/^\d{4}$/.test(text)) throw new BadInput([`--season: ${text} is not a year like 2026`])
  return Number(text)
}

interface RecordFiles {
  garden: PlannedGarden
  plantings: readonly Planting[]
  seen: readonly Seen[]
  climate: FileClimate
  today: string
}

function looksIn(file: string, plantings: readonly Planting[], today: string): Seen[] {
  const rows = accepted(
    readObservations(readText(file), new Map(plantings.map((p) => [p.tag, p])), today, file),
  )
  const since = new Map(plantings.map((p) => [p.tag, p.inPlaceSince]))
  // As on the screen: a look from before a planting came to its place is none of it there.
  return rows
    .filter((r) => r.date >= since.get(r.tag)!)
    .map((r) => ({
      plantingId: r.tag,
      on: r.date,
      rating: r.rating ?? null,
      living: r.living ?? null,
      stage: r.stage ?? null,
      flush: r.flush ?? null,
      absent: r.absent ?? false,
      signs: r.signs ?? [],
    }))
}

function recordOf(files: RecordFiles, asked: number | undefined) {
  const { garden, plantings, seen, climate, today } = files
  const south = garden.head.latitude < 0
  const seasons = [...new Set(seen.map((s) => seasonYearOf(s.on, south)))].sort((a, b) => a - b)
  const season = asked ?? seasons.at(-1) ?? seasonYearOf(today, south)
  const late = new Map(
    [...seasons, season - 1, season].map((s) => [
      s,
      earlinessOfSeason(climate.days, garden.head.latitude, s, today)?.lateDays ?? 0,
    ]),
  )
  const yearOfSeason = (s: number) => yearAt(climate.climate, late.get(s) ?? 0)
  const light = lightOf(garden, plantings, today)
  const record = gardenRecord(plantings, seen, countsOf(plantings, seen, today), {
    yearOfSeason,
    south,
    lightOf: (id) => light.get(id),
  })
  const nameOf = placeNames(garden)
  const taxa = taxonRecords(plantings, record, nameOf)
  const placeIds = [...new Set(plantings.map((p) => p.placeId))]
  return {
    garden: garden.head.name,
    on: today,
    climate: climate.source,
    seasons,
    plantings: plantings.map((p) => ofPlanting(p, record, nameOf)),
    taxa: taxa.map(({ spots, expected, outliers, ...t }) => ({
      ...t,
      expected: inRange(expected),
      spots: spots.map(({ placeId, plantingIds, ...s }) => ({
        place: nameOf(placeId),
        ...s,
        tags: plantingIds,
      })),
      outliers: outliers.map(nameOf),
    })),
    model: record.model ? ofModel(record.model, nameOf) : null,
    best: placeIds.map((placeId) => ({
      place: nameOf(placeId),
      tags: record.model
        ? bestOfPlace(plantings, record.model, record.scores, placeId).map((r) => r.plantingId)
        : [],
    })),
    survival: record.survival,
    bloom: bloomOf(files, season, yearOfSeason, nameOf),
  }
}

function bloomOf(
  { garden, plantings, seen, climate }: RecordFiles,
  season: number,
  yearOfSeason: YearOfSeason,
  nameOf: (id: string) => string,
) {
  const south = garden.head.latitude < 0
  const window = { ...weeksOfShow(climate.climate, season, south), season }
  const looks = looksOfShow(seen, window)
  const byPlace = group(plantings, (p) => p.placeId)
  return {
    ...window,
    seen: bloomsSeen(plantings, looks, yearOfSeason, south).map(({ plantingId, ...b }) => ({
      tag: plantingId,
      ...b,
      expected: b.expected ?? null,
      lateDays: b.lateDays ?? null,
    })),
    places: [...byPlace].map(([placeId, own]) => {
      const weeks = bloomOfPlace(own, looks, window, yearOfSeason)
      return { place: nameOf(placeId), weeks, gaps: bloomGaps(weeks) }
    }),
  }
}

type FoundRecord = ReturnType<typeof recordOf>

/** The class of light each planting stands in, over its growing season. */
function lightOf(
  { scene, places }: PlannedGarden,
  plantings: readonly Planting[],
  on: string,
): Map<string, LightClass> {
  const { now } = fieldsBetween(scene, places, on, on)
  return new Map(plantings.map((p) => [p.id, lightClass(hoursOf(p, scene, on)(now).total)]))
}

/** Head counts from the looks; where there are none, what the file says lives today. */
function countsOf(plantings: readonly Planting[], seen: readonly Seen[], today: string) {
  return plantings.map((p) => {
    const counted = seen
      .flatMap(({ plantingId, on, living }) =>
        plantingId === p.id && living !== null ? [{ on, living }] : [],
      )
      .sort((a, b) => (a.on < b.on ? -1 : 1))
    const isStated = counted.length === 0 && p.livingCount < p.plantedCount
    const counts = isStated ? [{ on: today, living: p.livingCount }] : counted
    return { plantingId: p.id, ...countHistory(p, counts, counts.at(-1)?.on ?? today) }
  })
}

/** With the range it lies in eight times in ten. */
const inRange = (expected: Expected | undefined) =>
  expected ? { ...expected, ...likelyRange(expected) } : null

function ofPlanting(p: Planting, { scores, model, declines }: GardenRecord, nameOf: (id: string) => string) {
  const decline = declines.find((d) => d.plantingId === p.id)
  return {
    tag: p.tag,
    taxon: p.taxon.botanical,
    place: nameOf(p.placeId),
    seasons: scores.filter((s) => s.plantingId === p.id).map(({ plantingId: _, ...score }) => score),
    expected: inRange(model?.plantings.find((e) => e.key === p.id)?.expected),
    decline: decline
      ? {
          perSeason: decline.perSeason,
          seasons: decline.seasons,
          from: decline.from,
          to: decline.to,
          p: decline.p,
        }
      : null,
  }
}

function ofModel(model: RecordModel, nameOf: (id: string) => string) {
  const { mean, meanSe, shares, untold, untied, records } = model
  const effect = ({ estimate, se, records }: { estimate: number; se: number; records: number }) => ({
    estimate,
    se,
    records,
  })
  return {
    mean,
    meanSe,
    records,
    shares: shares.map((s) => ({ ...s, share: s.share ?? null })),
    untold,
    untied: untied.map((places) => places.map(nameOf)),
    says: sharesSaid(model),
    cannotTell: cannotTell(model, { place: nameOf, taxon: (botanical) => botanical }),
    years: model.years.map((y) => ({ season: y.key, ...effect(y) })),
    places: model.places.map((p) => ({ place: nameOf(p.key), ...effect(p) })),
  }
}

function inWords({ plantings, seasons, model, taxa, bloom }: FoundRecord): string {
  const table = writeTable(
    ['tag', 'taxon', 'place', ...seasons.map(String), 'expected_from', 'expected_to', 'decline_a_season'],
    plantings.map((p) => [
      p.tag,
      p.taxon,
      p.place,
      ...seasons.map((y) => {
        const score = p.seasons.find((s) => s.season === y)
        return score ? tenths(score.adjusted) : ''
      }),
      p.expected ? tenths(p.expected.low) : '',
      p.expected ? tenths(p.expected.high) : '',
      p.decline ? tenths(p.decline.perSeason) : '',
    ]),
    '\n',
  )
  const lines = model
    ? [model.says, ...model.cannotTell.map((c) => `${c.says} ${c.wouldTell}`)].filter((l) => l !== '')
    : ['Too little yet to tell plant from spot from year.']
  return [
    table,
    ...lines,
    '',
    ...taxa.map((t) => `${t.taxon}: ${t.says} ${t.againSays}`),
    '',
    ...bloom.places.flatMap(({ place, gaps }) =>
      gaps.map((g) => `${place}: next to nothing in flower from ${g.from} to ${g.to}`),
    ),
  ].join('\n')
}
