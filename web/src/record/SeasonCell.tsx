import type { SeasonFigures } from '@border/contract'
import { counted, tenths } from '@border/core'

/** Five bands from poor to good; the figure is always written too. */
const bandOf = (score: number) => Math.max(1, Math.min(5, Math.round(score)))

/** A season of a planting in a table: its figure, its colour and the walks behind it. */
export function SeasonCell({ figures }: { figures: SeasonFigures | undefined }) {
  if (!figures) return <td className="record-cell is-empty">·</td>
  const [, score, adjusted, walks, mark] = figures
  const words =
    mark === 'resting'
      ? 'only seen at rest: it says nothing'
      : `${tenths(adjusted)} of 5 for its age and time of year, ${tenths(score)} as seen`
  return (
    <td
      className={`record-cell band-${mark === 'resting' ? 'rest' : bandOf(adjusted)}${mark === 'settling' ? ' is-settling' : ''}`}
      title={`${words}; ${counted(walks, 'walk')}${mark === 'settling' ? '; settling in' : ''}`}
    >
      {mark === 'resting' ? '–' : tenths(adjusted)}
      <small aria-label={counted(walks, 'walk')}>{'•'.repeat(Math.min(4, walks))}</small>
    </td>
  )
}
