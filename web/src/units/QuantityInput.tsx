import { isAskedUnit, quantityShown, quantityTyped, unitBeside, type AskedUnit } from '@border/core'
import { InputNumber, type InputNumberProps } from 'antd'
import { ownUnits } from './ownUnits.ts'

/**
 * A number that is typed. With a unit behind it that somebody may measure otherwise (`m`, `cm`, `l`, `kg`, `°C`) it stands in their
 * units, and is read however it is typed: `4'6"`, `54 in`, `1.4 m`. What it says and is given is always in the unit that is asked for.
 */
export function QuantityInput({ suffix, precision, ...props }: InputNumberProps<number>) {
  if (!isAskedUnit(suffix)) return <InputNumber<number> suffix={suffix} precision={precision} {...props} />
  return <InputNumber<number> {...props} {...inUnits(suffix, precision, props.value)} />
}

function inUnits(
  asked: AskedUnit,
  precision: number | undefined,
  now: number | null | undefined,
): InputNumberProps<number> {
  const units = ownUnits()
  const beside = unitBeside(asked, units)
  const shown = (value: number) =>
    beside === asked && precision !== undefined
      ? value.toFixed(precision)
      : quantityShown(value, asked, units)
  return {
    suffix: beside,
    // Feet and inches need more than digits.
    inputMode: beside === asked ? 'decimal' : 'text',
    formatter: (value, { userTyping, input }) => {
      if (userTyping) return input
      if (value === undefined || (value as unknown) === '' || value === null) return ''
      return shown(Number(value))
    },
    parser: (text) => {
      // Nothing is what the field takes for nothing.
      if (!text) return '' as unknown as number
      // What only stands there is not what it was rounded to.
      if (typeof now === 'number' && text === shown(now)) return now
      return quantityTyped(text, asked, units) ?? NaN
    },
  }
}
