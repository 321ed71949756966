import fc from 'fast-check'
import { EventEmitter } from 'node:events'
import { expect, it } from 'vitest'
import { countOpen, MOST_OPEN } from './openQuestions.ts'

it('lets each person have so many questions open, whatever others have, and forgets those that are answered', () => {
  const step = fc.record({ person: fc.constantFrom('a', 'b'), ask: fc.nat(50), answer: fc.nat(50) })
  fc.assert(
    fc.property(fc.array(step, { maxLength: 12 }), (steps) => {
      const open = countOpen()
      const asked: Record<string, EventEmitter[]> = { a: [], b: [] }
      for (const { person, ask, answer } of steps) {
        const own = asked[person]!
        for (let i = 0; i < ask; i++) {
          const answering = new EventEmitter()
          if (own.length < MOST_OPEN) {
            open(person, answering)
            own.push(answering)
          } else expect(() => open(person, answering)).toThrow(/at once/)
        }
        for (const answering of own.splice(0, answer)) answering.emit('close')
      }
    }),
  )
})
