import { describe, expect, it } from 'vitest'
import { madePlanting } from '../garden/test/made.ts'
import { usualWorth } from './worth.ts'

const on = '2026-06-01'
const perennial = madePlanting('N-1', 'Astrantia major', { plantedOn: '2020-04-01', livingCount: 3 })

describe('what a planting is worth to keep', () => {
  it('is as usual for a drift that can be had again', () => {
    expect(usualWorth(perennial, [perennial], on)).toEqual({ worth: 1, reasons: [] })
  })

  it('grows by each reason: its part, its being the only one, the years that another would take', () => {
    const yew = madePlanting('T-1', 'Taxus baccata', { plantedOn: '2016-04-01', role: 'the end of the walk' })
    expect(yew.taxon.yearsToSize).toBeGreaterThanOrEqual(10)
    expect(usualWorth(yew, [perennial, yew], on)).toEqual({
      worth: 4,
      reasons: [
        'a part here (the end of the walk)',
        'it is the only one of its kind here',
        'another would take 10 years to be as large',
      ],
    })
    const other = { ...yew, id: 'T-2', role: null }
    expect(usualWorth(other, [yew, other], on).worth).toBe(2)
    // Planted this spring it is any nursery's.
    expect(usualWorth({ ...other, plantedOn: '2026-04-01' }, [yew, other], on).worth).toBe(1)
  })
})
