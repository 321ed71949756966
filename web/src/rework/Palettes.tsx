import type { PaletteView } from '@border/contract'
import { counted, type KindOf, listed, moneyWords } from '@border/core'
import { Button } from '../frame/Button.tsx'
import { BloomStrip } from './BloomStrip.tsx'
import type { Proposing } from './queries.ts'
import { sourceWords, wishWords } from './reworkWords.ts'
import './rework.css'

/** Palettes as they are found; or why there are none. */
export function Proposed({
  proposing: { palettes, weeks, answer, failed, isLooking },
  kindOf,
  onTake,
}: {
  proposing: Proposing
  kindOf: KindOf
  onTake: (palette: PaletteView) => void
}) {
  const [first] = palettes
  return (
    <>
      {failed && <p role="alert">{failed}</p>}
      {palettes.map((palette, i) => (
        <Card
          key={i}
          title={`Palette ${'ABC'[i]}`}
          {...{ palette, weeks, kindOf, onTake }}
          more={first && i > 0 ? palette.lack - first.lack : undefined}
        />
      ))}
      {answer?.is === 'no more' && !isLooking && (
        <p className="soft">No more differ from these in three kinds.</p>
      )}
      {answer?.is === 'not worked out' && <p role="alert">{answer.says}</p>}
      {answer?.is === 'conflict' && (
        <section aria-label="Wishes that contradict each other">
          <p role="alert">
            {answer.wishes.length === 1
              ? `Nothing here meets this wish: ${wishWords(answer.wishes[0]!)}.`
              : `These wishes cannot all be met together: ${listed(answer.wishes.map(wishWords))}.`}{' '}
            {answer.giveUp.length === 0
              ? 'Giving up one alone does not help.'
              : 'Without one of them it would be:'}
          </p>
          {answer.giveUp.map(({ wish, palette }, i) => (
            <Card
              key={wish}
              title={`Without ${wishWords(wish)}${i === 0 && answer.giveUp.length > 1 ? ', the least to give up' : ''}`}
              {...{ palette, weeks, kindOf, onTake }}
            />
          ))}
        </section>
      )}
    </>
  )
}

/** A palette with what it comes to. @param more points that it lacks above the first */
function Card({
  title,
  palette,
  weeks,
  kindOf,
  more,
  onTake,
}: {
  title: string
  palette: PaletteView
  weeks: readonly string[]
  kindOf: KindOf
  more?: number | undefined
  onTake: (palette: PaletteView) => void
}) {
  const bare = palette.flowering.filter((of) => of.length === 0).length
  return (
    <section className="palette-card" aria-label={title}>
      <div className="spread">
        <b>{title}</b>
        <Button size="small" look="primary" onClick={() => onTake(palette)}>
          Take this
        </Button>
      </div>
      {weeks.length > 0 && <BloomStrip weeks={weeks} flowering={palette.flowering} kindOf={kindOf} />}
      <ul>
        {palette.items.map(({ candidate: { taxon, from }, count, drifts, isMatrix }) => (
          <li key={taxon.botanical}>
            {count} {taxon.common}{' '}
            <small>
              {isMatrix && 'running through the rest, '}
              {drifts > 1 && `in ${drifts} groups, `}
              {sourceWords[from]}
            </small>
          </li>
        ))}
      </ul>
      <small>
        {bare === 0 ? 'Something in flower every week' : `${counted(bare, 'week')} without a flower`},{' '}
        {Math.round(100 * palette.evergreenShare)} % green in winter.{' '}
        {palette.price > 0 && `Plants for ${moneyWords(palette.price)}. `}
        {palette.unpriced.length > 0 && `${counted(palette.unpriced.length, 'kind')} without a price. `}
        {more !== undefined && `${Math.max(0, Math.round(more))} points behind the first. `}
        Proved to be the best there is to {(100 * palette.gap).toFixed(1)} % of what a bare place lacks.
      </small>
    </section>
  )
}
