import { containerEndpoints, type CheckRequest, type CheckView, type PotView } from '@border/contract'
import { felts, quantityTyped, type AskedUnit, type Felt } from '@border/core'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDayMonth } from '../frame/words.ts'
import { ownUnits } from '../units/ownUnits.ts'
import { DrainTest } from './DrainTest.tsx'
import { TypedQuantity } from './TypedQuantity.tsx'
import { checkWords, factorWords } from './potWords.ts'

/** Notes that are shown of a container. */
const SHOWN = 5
const STARS = [1, 2, 3, 4, 5] as const

/** What was done and found at a container: it corrects how much it is taken to draw, and rates all of it. */
export function FoundAt({ of, potId }: { of: PotView; potId: string }) {
  const { view, isCrew, today } = useGardenContext()
  const check = useGardenWrite(containerEndpoints.check, { gardenId: view.garden.id }, 'Noted.')
  const at = { containerId: potId, on: today }
  const note = (said: CheckRequest) => check.mutate(said)
  return (
    <section>
      <h3>Found at it</h3>
      {isCrew && (
        <div className="pot-found">
          <div className="row">
            <Button size="small" onClick={() => note({ ...at, kind: 'watered' })}>
              Watered through
            </Button>
            <span className="soft">A finger deep it is</span>
            {felts.map((felt: Felt) => (
              <Button key={felt} size="small" onClick={() => note({ ...at, kind: 'felt', felt })}>
                {felt}
              </Button>
            ))}
          </div>
          <Figure
            label="Lighter than watered by"
            unit="kg"
            most={5000}
            does="Weighed"
            onSay={(lighterKg) => note({ ...at, kind: 'weighed', lighterKg })}
          />
          <Figure
            label="Rain in the gauge today"
            unit="mm"
            most={1000}
            does="Caught"
            onSay={(rainMm) => note({ ...at, kind: 'rained', rainMm })}
          />
          <DrainTest onSay={(test) => note({ ...at, kind: 'drained', ...test })} />
          <div className="row" role="group" aria-label="All of it, in stars">
            <span className="soft">All of it</span>
            {STARS.map((stars) => (
              <Button key={stars} size="small" onClick={() => note({ ...at, kind: 'rated', stars })}>
                {stars}
              </Button>
            ))}
            <span className="soft">of 5</span>
          </div>
        </div>
      )}
      <p>{factorWords(of.factor)}</p>
      <ul className="plain-list">
        {of.checks.slice(0, SHOWN).map((c) => (
          <Noted key={c.id} check={c} />
        ))}
      </ul>
    </section>
  )
}

/** A figure read off a scale, and the button that notes it. */
function Figure({
  label,
  unit,
  most,
  does,
  onSay,
}: {
  label: string
  unit: AskedUnit
  most: number
  does: string
  onSay: (value: number) => void
}) {
  const [typed, type] = useState('')
  const value = quantityTyped(typed, unit, ownUnits())
  const isSaid = value !== undefined && value >= 0 && value <= most
  return (
    <form
      className="row"
      onSubmit={(e) => {
        e.preventDefault()
        if (!isSaid) return
        onSay(value)
        type('')
      }}
    >
      <TypedQuantity label={label} unit={unit} text={typed} onType={type} />
      <Button size="small" type="submit" disabled={!isSaid}>
        {does}
      </Button>
    </form>
  )
}

function Noted({ check }: { check: CheckView }) {
  const { view, isCrew } = useGardenContext()
  const withdraw = useGardenWrite(
    containerEndpoints.withdrawCheck,
    { gardenId: view.garden.id, checkId: check.id },
    'Taken back.',
  )
  return (
    <li>
      {shortDayMonth(check.on)}: {checkWords(check)}
      {check.by && <span className="soft">, {check.by}</span>}{' '}
      {isCrew && (
        <Button look="link" size="small" className="inline-link" onClick={() => withdraw.mutate({})}>
          by mistake
        </Button>
      )}
    </li>
  )
}
