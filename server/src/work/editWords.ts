import type { EditView } from '@border/contract'
import { counted, dayMonthYear, listed, plantedWords, type Dating } from '@border/core'
import { isDeepStrictEqual } from 'node:util'
import type { Edit, EditEntry } from '../store/edits.ts'
import { happenedWords } from './obstructionWords.ts'

/** What an edit's rows are called by: plantings by tag, places and taxa by name. */
export interface EditNames {
  tagOf: (plantingId: string) => string
  placeOf: (placeId: string) => string
  partOf: (featureId: string) => string
  taxonOf: (taxonId: string) => string
}

/** An edit as it is told, each thing that it changed in a sentence. */
export function editView(edit: Edit, names: EditNames): EditView {
  return {
    id: edit.id,
    by: edit.by,
    at: edit.at.toISOString(),
    from: edit.from,
    says: editWords(edit.entries, names),
    isUndoing: edit.undoes !== null,
    isUndone: edit.isUndone,
    canUndo: !edit.isUndone && edit.entries.every((e) => e.now !== null),
  }
}

const MOST_TOLD = 6

/** What was changed, in sentences: parts of the plan, plantings, and what moved with them. */
export function editWords(entries: readonly EditEntry[], names: EditNames): string[] {
  const parts = entries.filter((e) => e.table === 'features').flatMap(partWords)
  const plantings = entries
    .filter((e) => e.table === 'plantings')
    .map((e) => plantingWords(e, names))
    .filter((said) => said !== undefined)
  const events = entries.filter((e) => e.table === 'feature_events').map((e) => eventWords(e, names))
  const fills = entries.filter((e) => e.table === 'fills').flatMap((e) => fillWords(e, names))
  const sites = siteWords(entries, names)
  const all = [...parts, ...events, ...fills, ...plantings, ...sites]
  return all.length > MOST_TOLD + 1
    ? [...all.slice(0, MOST_TOLD), `And ${counted(all.length - MOST_TOLD, 'more change')}.`]
    : all
}

function partWords({ was, now }: EditEntry): string[] {
  if (!now) return [`${String(was?.name ?? 'A part of the plan')} was put right.`]
  const name = String(now.name)
  if (!was || (was.withdrawn && !now.withdrawn)) return [`${name}, a ${String(now.kind)}, put on the plan.`]
  if (now.withdrawn && !was.withdrawn) return [`${name} taken off the plan.`]
  const [p, q] = [was.properties, now.properties] as Record<string, unknown>[]
  const said = [
    was.name !== now.name && `called ${name}; it was ${String(was.name)}`,
    was.kind !== now.kind && `a ${String(now.kind)}; it was a ${String(was.kind)}`,
    !isDeepStrictEqual(was.geometry, now.geometry) && 'drawn otherwise',
    !isDeepStrictEqual(sizes(p), sizes(q)) && sizesWords(p!, q!),
    was.to_date !== now.to_date &&
      (now.to_date ? `gone from ${dayMonthYear(String(now.to_date))}` : 'standing after all'),
    was.from_date !== now.from_date &&
      (now.from_date ? `there since ${dayMonthYear(String(now.from_date))}` : 'always there'),
  ].filter((s) => typeof s === 'string')
  return said.length > 0 ? [`${String(was.name)}: ${listed(said)}.`] : []
}

/** What is said of a part but for how it is drawn. */
function sizes(properties: Record<string, unknown> | undefined): Record<string, unknown> {
  const { handles: _h, earlier: _e, ...rest } = properties ?? {}
  return rest
}

const sizeNames: Record<string, string> = {
  heightM: 'height',
  crownRadiusM: 'crown’s radius',
  clearStemM: 'clear stem',
  thicknessM: 'thickness',
  diameterM: 'width',
  rimHeightM: 'rim',
}

function sizesWords(was: Record<string, unknown>, now: Record<string, unknown>): string {
  const changed = Object.keys(sizeNames).filter(
    (key) => was[key] !== now[key] && typeof now[key] === 'number',
  )
  if (changed.length === 0) return 'what is said of it'
  return listed(
    changed.map((key) =>
      typeof was[key] === 'number'
        ? `${sizeNames[key]} ${String(now[key])} m instead of ${String(was[key])}`
        : `${sizeNames[key]} ${String(now[key])} m`,
    ),
  )
}

/** What happened to a part of the plan, or that it did not after all. */
function eventWords({ was, now }: EditEntry, names: EditNames): string {
  const row = (now ?? was)!
  const what = happenedWords(String(row.action), row.value)
  const said = `${names.partOf(String(row.feature_id))}: ${what} on ${dayMonthYear(String(row.on_date))}`
  return now?.withdrawn ? `${said}, taken back.` : `${said}.`
}

/** A container filled; that it was emptied for it goes without saying. */
function fillWords({ was, now }: EditEntry, names: EditNames): string[] {
  if (was && !now?.withdrawn) return []
  const said = `${names.placeOf(String(now!.container_id))} filled: ${String(now!.name)}`
  return [now!.withdrawn ? `${said}, taken back.` : `${said}.`]
}

function plantingWords({ id, was, now }: EditEntry, names: EditNames): string | undefined {
  const tag = String((now ?? was)?.tag ?? names.tagOf(id))
  if (!now) return `${tag} was put right.`
  if (!was || (was.withdrawn && !now.withdrawn))
    return `${tag}, ${names.taxonOf(String(now.taxon_id))}, entered.`
  if (now.withdrawn && !was.withdrawn) return `${tag} taken out.`
  const said = [
    was.tag !== now.tag && `its tag was ${String(was.tag)}`,
    was.taxon_id !== now.taxon_id &&
      `${names.taxonOf(String(now.taxon_id))}; it was taken for ${names.taxonOf(String(was.taxon_id))}`,
    was.planted_count !== now.planted_count &&
      `${String(now.planted_count)} planted, not ${String(was.planted_count)}`,
    (was.planted_on !== now.planted_on || was.planted_known !== now.planted_known) &&
      `planted ${plantedWords({ plantedOn: String(now.planted_on), plantedKnown: now.planted_known as Dating })}`,
    was.source !== now.source && `came as ${String(now.source)}`,
    was.role !== now.role && (now.role ? `there as ${String(now.role)}` : 'there for nothing named'),
    was.colour_wish !== now.colour_wish &&
      (now.colour_wish ? `wished ${String(now.colour_wish)}` : 'wished in no colour'),
  ].filter((s) => typeof s === 'string')
  return said.length > 0 ? `${tag}: ${listed(said)}.` : undefined
}

/** Plantings that were put elsewhere, together. */
function siteWords(entries: readonly EditEntry[], names: EditNames): string[] {
  const moved = entries.filter(
    ({ table, was, now }) => table === 'planting_sites' && was && now && was.withdrawn === now.withdrawn,
  )
  const shifted = moved.filter(
    ({ was, now }) => was!.x !== now!.x || was!.y !== now!.y || was!.place_id !== now!.place_id,
  )
  const rehomed = shifted.filter(({ was, now }) => was!.place_id !== now!.place_id)
  const within = shifted.length - rehomed.length
  const into = [...new Set(rehomed.map(({ now }) => names.placeOf(String(now!.place_id))))]
  return [
    ...(rehomed.length > 0 ? [`${counted(rehomed.length, 'planting')} now in ${listed(into)}.`] : []),
    ...(within > 0 ? [`${counted(within, 'planting')} put elsewhere.`] : []),
  ]
}
