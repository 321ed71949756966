import { library, type GrownOver } from '@border/core'
import { expect, it } from 'vitest'
import { newIn, overWords } from './growthWords.ts'

const named = (botanical: string) => library.find((t) => t.botanical === botanical)!
const [shrub, low] = [named('Buddleja davidii'), named('Helenium autumnale')]
const over = (plants: number) => ({ below: low, above: shrub, plants, of: 9 })
const shade = (hours: number) => ({ taxon: low, without: 7, with: hours, by: [shrub] })
const year = (years: number, more: Partial<GrownOver>): GrownOver => ({
  years,
  overtopped: [],
  shaded: [],
  ...more,
})

it('what grows over what, and takes its sun, is told by common names, and where that is less than a kind wants', () => {
  expect(low.lightMinHours).toBe(6)
  expect(overWords(year(5, { overtopped: [over(3)], shaded: [shade(5)] }))).toBe(
    `Grown over: ${shrub.common} over 3 of 9 ${low.common}. Sneezeweed has 5 h of sun in place of 7 h, for ${shrub.common}, less than it wants.`,
  )
  expect(overWords(year(5, { shaded: [shade(6.25)] }))).toBe(
    `Sneezeweed has 6¼ h of sun in place of 7 h, for ${shrub.common}.`,
  )
  expect(overWords(year(5, {}))).toBe('')
})

it('a year tells only what is otherwise than in the one before', () => {
  const third = year(3, { overtopped: [over(3)], shaded: [shade(6)] })
  const same = year(5, { overtopped: [over(3)], shaded: [shade(5.5)] })
  expect(newIn(third, undefined)).toEqual(third)
  expect(newIn(same, third)).toEqual(year(5, {}))
  const worse = year(5, { overtopped: [over(4)], shaded: [shade(5)] })
  expect(newIn(worse, third)).toEqual(worse)
})
