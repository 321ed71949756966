import { describe, expect, it } from 'vitest'
import { library } from '../plants/index.ts'
import { builds, flowerForm, flowerForms, plantForm, plantForms } from './index.ts'

const named = (botanical: string) => library.find((t) => t.botanical.startsWith(botanical))!

describe('the form of a plant', () => {
  it.each([
    ['Hosta sieboldiana', 'broad', 'bell'],
    ['Miscanthus sinensis', 'fountain', 'awn'],
    ['Digitalis purpurea', 'spires', 'spike'],
    ['Achillea filipendulina', 'umbels', 'plate'],
    ['Iris sibirica', 'sword', 'trumpet'],
    ['Tulipa', 'strap', 'cup'],
    ['Taxus baccata', 'cone', undefined],
    ['Betula utilis', 'tree', undefined],
    ['Helenium autumnale', 'clump', 'daisy'],
    ['Hydrangea paniculata', 'round shrub', 'panicle'],
    ['Heuchera villosa', 'rosette', 'spike'],
    ['Athyrium filix-femina', 'fern', undefined],
  ] as const)('%s is a %s', (botanical, form, flowers) => {
    expect(plantForm(named(botanical))).toBe(form)
    if (flowers) expect(flowerForm(named(botanical))).toBe(flowers)
  })

  it('is each of at least eighteen over the library, and what flowers has flowers of a form', () => {
    const used = new Set(library.map(plantForm))
    expect(plantForms.filter((f) => used.has(f)).length).toBeGreaterThanOrEqual(18)
    for (const t of library) expect(flowerForm(t) !== undefined).toBe(Boolean(t.bloomFrom))
    expect(flowerForms.filter((f) => library.some((t) => flowerForm(t) === f))).toEqual([...flowerForms])
  })

  it('has an outline that lies within its height and its spread', () => {
    for (const form of plantForms)
      for (const band of [builds[form].leaves, builds[form].flowers]) {
        expect(band.from).toBeGreaterThanOrEqual(0)
        expect(band.to).toBeGreaterThan(band.from)
        expect(band.to).toBeLessThanOrEqual(1)
        for (let t = 0; t <= 1; t += 0.01) {
          expect(band.halfWidth(t)).toBeGreaterThanOrEqual(0)
          expect(band.halfWidth(t)).toBeLessThanOrEqual(1 + 1e-9)
        }
      }
  })
})
