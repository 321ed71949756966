import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { signs as allSigns } from '../diagnosis/index.ts'
import type { SunHours } from '../light/index.ts'
import { isWoody, library, type Taxon } from '../plants/index.ts'
import { actions, alwaysWeighed, isRemedyWork } from '../remedies/index.ts'
import { fitOf, lightFit, verdictFor, type Condition, type SpotOption, type VerdictInput } from './index.ts'

/** Whatever is known of whatever plant: nothing is proposed that cannot be taken, and nothing that answers another question. */

const hours = (total: number, heat: number): SunHours => ({
  total,
  heat: Math.min(heat, total),
  afternoon: Math.min(heat, total),
  morning: total - Math.min(heat, total),
  midday: 0,
})
const anyTaxon = fc.constantFrom(...library)
const anyHours = fc
  .tuple(fc.double({ min: 0, max: 12, noNaN: true }), fc.double({ min: 0, max: 3, noNaN: true }))
  .map(([total, heat]) => hours(total, heat))
const anyEvidence: fc.Arbitrary<Condition> = fc.record({
  signs: fc.subarray(
    allSigns.map((s) => s.id),
    { maxLength: 3 },
  ),
  rating: fc.option(fc.integer({ min: 1, max: 5 })),
  passedOver: fc.option(
    fc.record({
      rating: fc.integer({ min: 1, max: 5 }),
      on: fc.constantFrom('2026-02-03', '2026-05-02'),
      why: fc.constantFrom('at rest' as const, 'old' as const),
    }),
  ),
  decline: fc.option(
    fc.record({
      perSeason: fc.double({ min: -1.5, max: -0.2, noNaN: true }),
      from: fc.constant(2022),
      to: fc.constant(2026),
    }),
  ),
  living: fc.double({ min: 0.1, max: 1, noNaN: true }),
  dividedOn: fc.constantFrom('2014-04-01', '2021-04-01', '2025-10-01'),
  role: fc.option(fc.constantFrom('leaf mass', 'front drift')),
  again: fc.constant(null),
})

const spotFor = (taxon: Taxon): SpotOption => {
  const good = hours((taxon.lightMinHours + Math.min(taxon.lightMaxHours, 10)) / 2, 0)
  return {
    placeId: 'p',
    placeName: 'Loft strip',
    x: 0,
    y: 0,
    hours: good,
    fit: fitOf(taxon, { hours: good }),
  }
}

const anyInput: fc.Arbitrary<VerdictInput> = fc
  .tuple(anyTaxon, anyHours, anyHours, fc.constantFrom('some', 'none', 'not looked'), fc.option(anyEvidence))
  .map(([taxon, hoursNow, hoursBefore, spots, condition]) => ({
    taxon,
    count: 3,
    inPlaceSince: '2014-04-01',
    on: '2026-09-14',
    hoursNow,
    hoursBefore,
    causes: [],
    spots: spots === 'some' ? [spotFor(taxon)] : spots === 'none' ? [] : undefined,
    condition: condition ?? undefined,
  }))

const holds = (check: (input: VerdictInput) => void, numRuns = 600) =>
  fc.assert(fc.property(anyInput, check), { numRuns })

describe('what is proposed', () => {
  it('can be taken, and so can what comes second', () => {
    holds((input) => {
      const { action, runnerUp, ruledOut } = verdictFor(input)
      expect(action).not.toBe(runnerUp)
      for (const proposed of [action, runnerUp]) expect(ruledOut.map((r) => r.action)).not.toContain(proposed)
    })
  })

  it('moves nothing that has nowhere to go, resents it, or for which nobody has looked', () => {
    holds((input) => {
      if (verdictFor(input).action !== 'move') return
      expect(input.spots!.length).toBeGreaterThan(0)
      expect(input.taxon.moveWhen).not.toBe('never')
    })
  })

  it('is work that can be planned, or what every planting is weighed by, or leaving it alone', () => {
    holds((input) => {
      const { action, remedies } = verdictFor(input)
      const known: readonly string[] = [...alwaysWeighed, 'give it time']
      if (!known.includes(action))
        expect(remedies.some((r) => r.action === action && isRemedyWork(r.id))).toBe(true)
    })
  })

  it('divides only what is divided, and cuts hard only what bears it', () => {
    holds((input) => {
      const { action } = verdictFor(input)
      if (action === 'divide') expect(input.taxon.divideYears).not.toBeNull()
      if (action === 'cut back' && isWoody(input.taxon)) expect(input.taxon.bearsHardCut).toBe(true)
    })
  })

  it('never answers the light with the spade or the shears', () => {
    // Seven hours over its light, and nothing else known of it: neither a division nor a cut helps.
    fc.assert(
      fc.property(anyTaxon, fc.boolean(), (taxon, over) => {
        fc.pre(over ? taxon.lightMaxHours < 6 : taxon.lightMinHours > 4)
        const { action, runnerUp } = verdictFor({
          taxon,
          inPlaceSince: '2024-04-01',
          on: '2026-09-14',
          hoursNow: over ? hours(taxon.lightMaxHours + 6, 0) : hours(Math.max(0, taxon.lightMinHours - 4), 0),
          hoursBefore: hours(taxon.lightMinHours, 0),
          causes: [],
          spots: [],
        })
        for (const a of [action, runnerUp]) expect(['divide', 'cut back']).not.toContain(a)
      }),
      { numRuns: 300 },
    )
  })

  it('adds up', () => {
    holds((input) => {
      const { scores, terms } = verdictFor(input)
      for (const a of actions) {
        const sum = terms.filter((t) => t.action === a).reduce((s, t) => s + t.points, 0)
        // Terms of less than half a point are not shown.
        expect(Math.abs(sum - (scores[a] ?? 0))).toBeLessThanOrEqual(1.5)
      }
    })
  })

  it('is the best scored of what can be taken', () => {
    holds((input) => {
      const { action, scores, ruledOut } = verdictFor(input)
      const open = actions.filter((a) => !ruledOut.some((r) => r.action === a))
      expect(scores[action]).toBe(Math.max(...open.flatMap((a) => scores[a] ?? [])))
    })
  })
})

describe('what is ruled out', () => {
  it('is named once, with why', () => {
    holds((input) => {
      const { ruledOut } = verdictFor(input)
      expect(new Set(ruledOut.map((r) => r.action)).size).toBe(ruledOut.length)
      for (const r of ruledOut) expect(r.why).toMatch(/^[A-Z].*\.$/)
    })
  })

  it('says that no spot is free only where one was looked for', () => {
    holds((input) => {
      const said = JSON.stringify(verdictFor(input))
      if (/No free spot|no free spot/.test(said)) expect(input.spots).toEqual([])
      if (input.spots === undefined && input.taxon.moveWhen !== 'never')
        expect(said).toContain('no spot was looked for')
    })
  })

  it('may be chosen all the same where only nothing asks for it', () => {
    holds((input) => {
      for (const { action, isOpen } of verdictFor(input).ruledOut) {
        if (action === 'move' && (input.taxon.moveWhen === 'never' || !input.spots?.length))
          expect(isOpen).toBe(false)
        if (action === 'divide' && !input.taxon.divideYears) expect(isOpen).toBe(false)
        if (action === 'replace' || action === 'remove') expect(isOpen).toBe(true)
      }
    })
  })

  it('is never keeping or watching', () => {
    holds((input) => {
      for (const a of ['keep', 'watch'] as const)
        expect(verdictFor(input).ruledOut.map((r) => r.action)).not.toContain(a)
    })
  })
})

describe('a rating that does not count', () => {
  it('is said, with its day and why; no other is', () => {
    holds((input) => {
      const notes = verdictFor(input).notes.filter((n) => n.startsWith('Rated'))
      const passed = input.condition?.passedOver
      expect(notes).toHaveLength(passed ? 1 : 0)
      if (passed) {
        expect(notes[0]).toContain(`Rated ${passed.rating} of 5 on`)
        expect(notes[0]).toContain(passed.why === 'at rest' ? 'at rest' : 'four months')
      }
    })
  })

  it('changes no score', () => {
    holds((input) => {
      if (!input.condition?.passedOver) return
      const without = verdictFor({ ...input, condition: { ...input.condition, passedOver: null } })
      expect(verdictFor(input).scores).toEqual(without.scores)
    })
  })
})

describe('light', () => {
  it('nearer to what it likes never speaks more for moving it away', () => {
    fc.assert(
      fc.property(
        anyTaxon,
        fc.double({ min: 0, max: 12, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (taxon, total, part) => {
          const middle = (taxon.lightMinHours + Math.min(taxon.lightMaxHours, 12)) / 2
          const at = (h: number) => {
            const hoursNow = hours(h, 0)
            return {
              misfit: lightFit(taxon, hoursNow).misfitHours,
              move: verdictFor({
                taxon,
                inPlaceSince: '2016-04-01',
                on: '2026-09-14',
                hoursNow,
                hoursBefore: hoursNow,
                causes: [],
                spots: [spotFor(taxon)],
              }).scores.move!,
            }
          }
          const far = at(total)
          const near = at(total + part * (middle - total))
          fc.pre(taxon.moveWhen !== 'never')
          expect(near.misfit).toBeLessThanOrEqual(far.misfit + 1e-9)
          // Rounded to whole points.
          expect(near.move).toBeLessThanOrEqual(far.move + 1)
        },
      ),
      { numRuns: 300 },
    )
  })
})
