import { unitBeside, type AskedUnit } from '@border/core'
import { ownUnits } from '../units/ownUnits.ts'

/** A quantity as text, to be read by `quantityTyped` once it is said, with the unit that a bare number is in behind it. */
export const TypedQuantity = ({
  label,
  unit,
  text,
  onType,
}: {
  label: string
  unit: AskedUnit
  text: string
  onType: (text: string) => void
}) => (
  <label className="spread">
    {label}
    <span>
      <input
        type="text"
        inputMode="decimal"
        className="fill-count"
        required
        value={text}
        onChange={(e) => onType(e.target.value)}
      />{' '}
      {unitBeside(unit, ownUnits())}
    </span>
  </label>
)
