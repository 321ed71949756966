import { monthShort } from './potWords.ts'

/** What a month comes to: how high its bar stands, 0 to 1, its figure, and the whole of it in words. */
export interface MonthBar {
  height: number
  figure: string
  says: string
}

/** Twelve months side by side, each with its figure under its bar. */
export function YearBars({
  label,
  months,
  tone,
}: {
  label: string
  months: readonly MonthBar[]
  tone: 'water' | 'sun'
}) {
  return (
    <table className={`year-bars ${tone}`} aria-label={label}>
      <tbody>
        <tr className="year-bars-heights" aria-hidden>
          {months.map((m, i) => (
            <td key={i} title={`${monthShort(i + 1)}: ${m.says}`}>
              <i style={{ height: `${Math.round(100 * m.height)}%` }} />
            </td>
          ))}
        </tr>
        <tr>
          {months.map((m, i) => (
            <td key={i} title={`${monthShort(i + 1)}: ${m.says}`}>
              {m.figure}
            </td>
          ))}
        </tr>
        <tr>
          {months.map((_, i) => (
            <th key={i} scope="col" aria-label={monthShort(i + 1)}>
              {monthShort(i + 1).charAt(0)}
            </th>
          ))}
        </tr>
      </tbody>
    </table>
  )
}
