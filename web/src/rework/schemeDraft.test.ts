import {
  reworkEndpoints,
  verdictEndpoints,
  gardenEndpoints,
  type PaletteView,
  type RelocatedView,
  type SaidDestination,
  type SaidScheme,
} from '@border/contract'
import { kindsOf, leavingOf, library, placesOn, staysOf, type Taxon, withDrift } from '@border/core'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { answerTo, today } from '../test/server.ts'
import {
  arrangementOf,
  bedGround,
  inGroups,
  leavingByVerdicts,
  newScheme,
  schemeNames,
  usualWishes,
  withArrangement,
  withKind,
  withoutKind,
  withPalette,
  withWish,
} from './schemeDraft.ts'

const view = answerTo(gardenEndpoints.read)
const ground = answerTo(reworkEndpoints.ground)
const place = placesOn(view.features, today).find((p) => p.id === ground.placeId)!
const bed = bedGround(place, ground, [180], [])
const named = (botanical: string) => library.find((t) => t.botanical === botanical)!
const [tall, low, bulb] = ['Helenium autumnale', 'Nepeta × faassenii', 'Galanthus nivalis'].map(named) as [
  Taxon,
  Taxon,
  Taxon,
]
const kindOf = new Map(library.map((t) => [t.botanical, t]))
const said = newScheme('A', usualWishes('odd', 2))

describe('what leaves by the verdicts', () => {
  const assessed = answerTo(verdictEndpoints.assessment)
  const of = (action: string, decisions: object[] = []) => {
    const [assessment] = assessed.assessments
    const standing = view.plantings.find((p) => p.id === assessment!.plantingId)!
    const verdict = { ...assessment!.verdict, action }
    const known = {
      ...assessed,
      assessments: [{ ...assessment!, verdict }],
      decisions,
    } as unknown as typeof assessed
    return leavingByVerdicts(standing.placeId, view.plantings, known, today).map(
      ({ how, to }) => to?.to ?? how,
    )
  }

  it('is what moves, is replaced or removed; what is divided stays and gives pieces; the rest stays', () => {
    expect(['move', 'replace', 'remove'].map((a) => of(a))).toEqual([['leaves'], ['leaves'], ['gone']])
    expect(of('divide')).toEqual(['divides'])
    expect(['keep', 'watch', 'lift and replant', 'cut back'].flatMap((a) => of(a))).toEqual([])
  })

  it('goes by what somebody has decided before what is proposed', () => {
    const [assessment] = assessed.assessments
    const decided = {
      ...assessed.decisions[0]!,
      plantingId: assessment!.plantingId,
      proposed: 'move',
      choice: 'otherwise',
      action: 'keep',
      waitUntil: null,
      // As it was weighed then nothing has gained on it since.
      weighed: { terms: [], scores: { move: 1000, keep: 0 } },
    }
    expect(of('move', [decided])).toEqual([])
  })
})

describe('a scheme', () => {
  const item = (taxon: Taxon, count: number, drifts: number): PaletteView['items'][number] => ({
    candidate: { taxon, from: 'library', fit: 1, price: null },
    count,
    drifts,
    areaM2: 1,
  })
  const palette = { items: [item(tall, 15, 3), item(low, 13, 3), item(bulb, 40, 5)] } as PaletteView

  it('takes a palette: as many plants as it has, in its groups; small bulbs between them', () => {
    const taken = withPalette(said, palette)
    expect(taken.drifts.map((d) => [d.botanical, d.count])).toEqual([
      [tall.botanical, 5],
      [tall.botanical, 5],
      [tall.botanical, 5],
      [low.botanical, 5],
      [low.botanical, 4],
      [low.botanical, 4],
    ])
    expect(taken.between.map((b) => [b.botanical, b.count])).toEqual([[bulb.botanical, 40]])
    expect(kindsOf(taken).map((k) => [k.botanical, k.count, k.drifts])).toEqual([
      [tall.botanical, 15, 3],
      [low.botanical, 13, 3],
      [bulb.botanical, 40, 1],
    ])
    expect(withoutKind(taken, tall.botanical).drifts).toHaveLength(3)
  })

  it('keeps what was drawn by hand when a palette is taken, and sets its kind once', () => {
    const drawn: SaidScheme = {
      ...said,
      drifts: [
        {
          id: crypto.randomUUID(),
          botanical: tall.botanical,
          count: 7,
          from: 'bench',
          ground: [],
          isDrawn: true,
        },
      ],
    }
    const taken = withPalette(drawn, palette)
    expect(taken.drifts.filter((d) => d.botanical === tall.botanical)).toEqual(drawn.drifts)
  })

  it('shares plants out in groups that differ by one at most', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 300 }), fc.integer({ min: 1, max: 40 }), (count, groups) => {
        const shared = inGroups(count, groups)
        expect(shared.reduce((a, b) => a + b, 0)).toBe(count)
        expect(Math.max(...shared) - Math.min(...shared)).toBeLessThanOrEqual(1)
        expect(shared.length).toBe(Math.min(count, groups))
      }),
    )
  })

  it('is the same after it is arranged and written down, what is in no library among it', () => {
    const lost = { ...withKind(said, tall, 3, 'bench').drifts[0]!, botanical: 'Hosta deleta' }
    const before: SaidScheme = { ...withKind(withKind(said, tall, 5, 'bench'), low, 7, 'library'), name: 'B' }
    const whole = { ...before, drifts: [...before.drifts, lost] }
    const { arranged, unknown } = arrangementOf(bed, whole, kindOf)
    expect(unknown).toEqual([lost])
    const settled = withDrift(bed, arranged, { id: crypto.randomUUID(), taxon: tall, count: 3 })
    const kept = withArrangement(whole, bed, settled, kindOf)
    expect(kept.drifts.map((d) => [d.botanical, d.count, d.from])).toEqual([
      [tall.botanical, 5, 'bench'],
      [low.botanical, 7, 'library'],
      // Of a kind that is there already it is had where that is.
      [tall.botanical, 3, 'bench'],
      ['Hosta deleta', 3, 'bench'],
    ])
    const again = arrangementOf(bed, kept, kindOf)
    expect(again.arranged.has).toEqual(settled.has)
    expect(withArrangement(kept, bed, again.arranged, kindOf)).toEqual(kept)
  })

  it('wants a kind, keeps it out, or neither, never both; and asks nothing where nothing is asked', () => {
    const wanted = withWish(said.wishes, 'X', 'locked')
    expect(wanted).toMatchObject({ locked: ['X'] })
    const out = withWish(wanted, 'X', 'barred')
    expect(out).toMatchObject({ barred: ['X'] })
    expect(out.locked).toBeUndefined()
    expect(withWish(out, 'X', null)).toEqual(said.wishes)
  })

  it('leaves what is divided standing', () => {
    const [first, second] = view.plantings.filter((p) => p.placeId === place.id)
    const leaving = [
      { plantingId: first!.id, how: 'leaves' as const, to: null, worth: 1 },
      { plantingId: second!.id, how: 'divides' as const, to: null, worth: 1 },
    ]
    const ids = staysOf(view.plantings, place.id, { leaving }, undefined).map((p) => p.id)
    expect(ids).not.toContain(first!.id)
    expect(ids).toContain(second!.id)
  })

  it('keeps the ground of what is to stay for now: because somebody decided so, or because nothing better was found', () => {
    const here = view.plantings.filter((p) => p.placeId === place.id)
    const [one, other] = here
    const leaves = (to: SaidDestination | null) => [
      { plantingId: one!.id, how: 'leaves' as const, to, worth: 1 },
      { plantingId: other!.id, how: 'leaves' as const, to: { to: 'bench' as const }, worth: 1 },
    ]
    const went = (to: 'stay' | 'bench'): RelocatedView => ({
      ok: true,
      cost: 0,
      gap: 0,
      went: [{ plantingId: one!.id, destination: { to }, cost: 0, suiting: null }],
    })
    const stays = (to: SaidDestination | null, relocated?: RelocatedView) =>
      staysOf(view.plantings, place.id, { leaving: leaves(to) }, relocated).includes(one!)
    expect(stays({ to: 'stay' })).toBe(true)
    expect(stays(null, went('stay'))).toBe(true)
    expect(stays(null, went('bench'))).toBe(false)
    // What somebody has said goes before what was found.
    expect(stays({ to: 'gone' }, went('stay'))).toBe(false)
    expect(leavingOf({ leaving: leaves(null) }, went('stay'))).toEqual([other!.id])
  })

  it('is told from another of its name', () => {
    const scheme = answerTo(reworkEndpoints.list)[0]!.schemes[0]!
    expect(schemeNames([scheme, scheme])).toEqual([`${scheme.said.name} (1)`, `${scheme.said.name} (2)`])
  })
})
