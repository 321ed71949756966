import { shortDate } from '../frame/words.ts'
import { minutesText, nextTag } from '@border/core'
import { describe, expect, it } from 'vitest'

describe('the next tag', () => {
  it.each([
    [['N-001', 'N-074', 'N-012'], 'N-075'],
    [['W-09', 'W-10'], 'W-11'],
    [['N-099'], 'N-100'],
    [['old rose'], '1'],
    [[], '1'],
  ])('after %j is %s', (tags, next) => {
    expect(nextTag(tags)).toBe(next)
  })
})

describe('words for narrow places', () => {
  it.each([
    ['2026-09-14', '14 Sept 2026'],
    ['2026-03-01', '1 March 2026'],
    ['2027-12-31', '31 Dec 2027'],
  ])('%s is %s', (day, text) => {
    expect(shortDate(day)).toBe(text)
  })
  it.each([
    [45, '45 min'],
    [60, '1 h'],
    [135, '2 h 15 min'],
  ])('%i minutes are %s', (minutes, text) => {
    expect(minutesText(minutes)).toBe(text)
  })
})
