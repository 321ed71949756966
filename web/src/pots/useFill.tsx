import { containerEndpoints, type PotView } from '@border/contract'
import {
  countIn,
  dayMonthYear,
  MILD_C,
  potRoleOf,
  recipeFor,
  recipes,
  remarksOn,
  seasonFrom,
  sunIn,
  type FillEnd,
  type FillSeason,
  type IsoDate,
  type PotRole,
  type PottedPlant,
  type Proposal,
  type RecipeName,
  type Taxon,
  type Year,
} from '@border/core'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { TakeBack } from './TakeBack.tsx'
import { drawnFrom, type Spare } from './spares.ts'
import type { RowPot } from './usePotRow.ts'

/** What a fill is of: a container as it is seen and as it was judged. */
export interface FilledPot {
  pot: RowPot
  of: PotView
  year: Year
  coldestC: number | null
  /** What it is to be filled with to begin with: as another was. */
  design?: FillDesign | undefined
}

/** A filling that is handed on from one container to those that are to be alike. */
export interface FillDesign {
  season: FillSeason
  recipe: RecipeName | ''
  name: string
  incoming: readonly Incoming[]
  /** Containers that are still to be filled so. */
  next: readonly string[]
}

/** A kind that is to go in. */
export interface Incoming {
  key: string
  taxon: Taxon
  count: number
  role: PotRole
  /** Whence it is in hand; bought where it is not. */
  spare?: Spare
}

/** What becomes of a planting that stands in it. */
export type Leaving = 'stays' | 'bench' | 'compost'

/** Shares of the mix that may be new, as they are chosen. */
export const RENEWED = [
  { value: '1', label: 'all of it new' },
  { value: '0.33', label: 'the top third new' },
  { value: '0', label: 'none: as it is' },
] as const

/** What is said of a fill before it is kept. */
export interface Said {
  on: IsoDate
  season: FillSeason
  name: string
  /** By planting; what is not named stays. */
  leaving: Readonly<Record<string, Leaving>>
  incoming: readonly Incoming[]
  renewed: (typeof RENEWED)[number]['value']
  /** Empty where nobody says: then the one that suits. */
  recipe: RecipeName | ''
  endedBy: FillEnd | ''
  endedNote: string
  note: string
}

/** A container being filled anew: what is said of it, what follows from that, and the way to keep it. */
export type Fill = ReturnType<typeof useFill>

export function useFill(
  { pot, of, year, coldestC, design }: FilledPot,
  onKept: (kept: Said & { name: string }) => void,
) {
  const { view, today } = useGardenContext()
  const { id: gardenId } = view.garden
  /** The fill that stands. */
  const before = of.fills[0]?.emptiedOn === null ? of.fills[0] : undefined
  const [said, setSaid] = useState<Said>(() => ({
    on: today,
    season: design?.season ?? seasonFrom(today, year.south),
    name: design?.name ?? '',
    leaving: {},
    incoming: design?.incoming ?? [],
    renewed: before ? '0.33' : '1',
    recipe: design?.recipe ?? '',
    endedBy: '',
    endedNote: '',
    note: '',
  }))
  const say = (change: Partial<Said>) => setSaid((s) => ({ ...s, ...change }))
  const { on, season, incoming } = said
  const becomesOf = (plantingId: string): Leaving => said.leaving[plantingId] ?? 'stays'
  const together: PottedPlant[] = [
    ...pot.plants.filter((p) => becomesOf(p.id) === 'stays'),
    ...incoming.map(({ key, taxon, count, role }) => ({ id: key, taxon, count, role, plantedOn: on })),
  ]
  const suggested = recipeFor(
    together.map((p) => p.taxon),
    season,
  )
  const mix = recipes[said.recipe || suggested]
  const siteOf = (light: PotView['light'], forSeason = season) => ({
    sunHours: sunIn(light, forSeason, year.south),
    coldestC: coldestC ?? MILD_C,
    season: forSeason,
    overWinter: forSeason === 'winter',
  })
  const site = siteOf(of.light)
  const name = said.name.trim() || `${season === 'summer' ? 'Summer' : 'Winter'} ${on.slice(0, 4)}`
  const keep = useGardenWrite(containerEndpoints.fill, { gardenId }, (_, { editId }) => (
    <>
      {pot.name} is filled. <TakeBack gardenId={gardenId} editId={editId} />
    </>
  ))
  const send = () =>
    keep.mutate(
      {
        containerId: pot.id,
        replaces: before?.id ?? null,
        on,
        name,
        season,
        mix: mix.parts.map((p) => ({ ...p })),
        renewed: Number(said.renewed),
        endedBy: said.endedBy || null,
        out: pot.plants.flatMap(({ id: plantingId }) => {
          const to = becomesOf(plantingId)
          return to === 'stays' ? [] : [{ plantingId, to }]
        }),
        in: incoming.map(({ taxon, count, role, spare }) => ({
          taxonBotanical: taxon.botanical,
          count,
          role,
          ...(spare?.as ?? { source: 'bought' as const }),
        })),
        ...(said.note.trim() && { note: said.note.trim() }),
        ...(said.endedNote.trim() && { endedNote: said.endedNote.trim() }),
      },
      { onSuccess: () => onKept({ ...said, name }) },
    )
  return {
    said,
    say,
    before,
    today,
    becomesOf,
    together,
    suggested,
    mix,
    site,
    siteOf,
    name,
    remarks: remarksOn(
      together.map((p) => ({ taxon: p.taxon, count: p.count, role: potRoleOf(p.role) })),
      pot.vessel,
      site,
    ),
    /** Why it cannot be kept; undefined where it can. */
    wrong:
      on > today
        ? 'That day lies ahead: a fill is recorded once it is made.'
        : before && on <= before.filledOn
          ? `What is in it was filled on ${dayMonthYear(before.filledOn)}: say a later day.`
          : undefined,
    isSending: keep.isPending,
    send,
    add: (taxon: Taxon, spare?: Spare) =>
      setSaid((s) => ({ ...s, incoming: [...s.incoming, newcomer(taxon, pot, s.incoming, spare)] })),
    change: (key: string, change: Partial<Incoming>) =>
      setSaid((s) => ({
        ...s,
        incoming: s.incoming.map((o) => (o.key === key ? { ...o, ...change } : o)),
      })),
    remove: (key: string) => setSaid((s) => ({ ...s, incoming: s.incoming.filter((o) => o.key !== key) })),
    take: ({ potted }: Proposal, spares: readonly Spare[]) =>
      say({
        incoming: potted.flatMap(({ taxon, role, count }) =>
          drawnFrom(spares, taxon.botanical, count).map(({ spare, ...part }, i): Incoming => ({
            key: `${taxon.botanical} ${role} ${i}`,
            taxon,
            role,
            ...part,
            ...(spare && { spare }),
          })),
        ),
      }),
  }
}

/** A kind as it goes in: what there is none of yet in the middle, then what fills, each for its share of the mix. */
function newcomer(taxon: Taxon, pot: RowPot, all: readonly Incoming[], spare: Spare | undefined): Incoming {
  const hasFocal = all.some((p) => p.role === 'focal')
  const role: PotRole =
    !hasFocal && taxon.heightM >= 0.7 * pot.vessel.depthM
      ? 'focal'
      : taxon.habit === 'mat'
        ? 'trailer'
        : 'filler'
  const count = Math.min(countIn(taxon, role, pot.vessel), spare?.count ?? Infinity)
  return {
    key: `${taxon.botanical} ${all.length} ${Date.now()}`,
    taxon,
    count,
    role,
    ...(spare && { spare }),
  }
}
