import { describe, expect, it } from 'vitest'
import { hiddenWords, ownHiddenWords, shareWords } from './index.ts'

describe('what is hidden', () => {
  it('is said as people say it', () => {
    expect([0.24, 0.35, 0.48, 0.65, 0.8, 0.95, 1].map(shareWords)).toEqual([
      'a quarter',
      'a third',
      'half',
      'two thirds',
      'three quarters',
      'nearly all',
      'all',
    ])
  })

  it('is that of the flowers while there are some, and not said where it is hardly any', () => {
    expect(hiddenWords('phlox', { leaves: 0.2, flowers: 0.66 })).toBe('a third of the phlox in flower')
    expect(hiddenWords('phlox', { leaves: 0.5, flowers: null })).toBe('half of the phlox')
    expect(hiddenWords('phlox', { leaves: 0.9, flowers: null })).toBeUndefined()
    expect(hiddenWords('phlox', { leaves: null, flowers: null })).toBeUndefined()
  })

  it('is told of a drift in hand whichever it is, but for one of which there is nothing to see', () => {
    expect(ownHiddenWords('phlox', { leaves: 0.2, flowers: 0.66 })).toBe(
      'A third of the flowers of this drift of phlox are hidden',
    )
    expect(ownHiddenWords('phlox', { leaves: 0.5, flowers: null })).toBe(
      'Half of this drift of phlox is hidden',
    )
    expect(ownHiddenWords('phlox', { leaves: 0.93, flowers: null })).toBe(
      'This drift of phlox is seen, all but 7 in a hundred',
    )
    expect(ownHiddenWords('phlox', { leaves: 1, flowers: null })).toBe('This drift of phlox is seen whole')
    expect(ownHiddenWords('phlox', { leaves: null, flowers: null })).toBeUndefined()
  })
})
