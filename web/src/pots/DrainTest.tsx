import type { CheckRequest } from '@border/contract'
import { drainTestFault, quantityTyped, testedTraits } from '@border/core'
import { useState } from 'react'
import { ownUnits } from '../units/ownUnits.ts'
import { Button } from '../frame/Button.tsx'
import { TypedQuantity } from './TypedQuantity.tsx'
import { drainWords } from './potWords.ts'

type Said = Omit<Extract<CheckRequest, { kind: 'drained' }>, 'kind' | 'containerId' | 'on' | 'note'>

const nothing = { sampleLitres: '', filledLitres: '', drainedLitres: '' }
const asked = {
  sampleLitres: 'Water the empty pot holds',
  filledLitres: 'Water the dry mix took',
  drainedLitres: 'Water that ran out',
} satisfies Record<keyof Said, string>

/** How a mix is tested by filling a sample of it and letting it drain, with the three figures that are read. */
export function DrainTest({ onSay }: { onSay: (said: Said) => void }) {
  const [typed, type] = useState(nothing)
  const litres = (text: string) => quantityTyped(text, 'l', ownUnits()) ?? NaN
  const said: Said = {
    sampleLitres: litres(typed.sampleLitres),
    filledLitres: litres(typed.filledLitres),
    drainedLitres: litres(typed.drainedLitres),
  }
  const isWhole = Object.values(said).every((v) => v >= 0)
  const fault = isWhole ? drainTestFault(said) : undefined
  return (
    <details>
      <summary>Test what its mix holds</summary>
      <form
        aria-label="Test of the mix"
        className="drain-test"
        onSubmit={(e) => {
          e.preventDefault()
          if (!isWhole || fault) return
          onSay(said)
          type(nothing)
        }}
      >
        <ol>
          <li>Tape the holes of a plain pot about 20 cm tall, and measure the water that fills it.</li>
          <li>Fill it with the same mix, dry. Pour in water until it stands at the brim.</li>
          <li>Open the holes over a bucket, and after an hour measure what ran out.</li>
        </ol>
        {Object.entries(asked).map(([name, label]) => (
          <TypedQuantity
            key={name}
            label={label}
            unit="l"
            text={typed[name as keyof Said]}
            onType={(text) => type({ ...typed, [name]: text })}
          />
        ))}
        {fault && (
          <p className="field-fault" role="alert">
            {fault.says}
          </p>
        )}
        {isWhole && !fault && <p>That is {drainWords(testedTraits(said))}.</p>}
        <Button size="small" type="submit" disabled={!isWhole || fault !== undefined}>
          Note the test
        </Button>
      </form>
    </details>
  )
}
