import { counted, effectsBetween, quarterHours, type Supposition, type LightEffect } from '@border/core'
import { useMemo } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { suppositionClause } from './suppositionWords.ts'
import type { PlanLight } from './usePlanLight.ts'

const MOST_LISTED = 12

/** What the things being tried would do to the plantings, while they are tried. */
export function EffectsList({
  light,
  suppositions,
  onSelect,
  onDrop,
  onSeason,
}: {
  light: PlanLight
  suppositions: readonly Supposition[]
  onSelect: (plantingId: string) => void
  onDrop: () => void
  /** Given when hours are not over the season, which is what ranges are about. */
  onSeason: (() => void) | undefined
}) {
  const { view, on } = useGardenContext()
  const { before, after } = light
  const effects = useMemo(() => {
    if (onSeason || !before.field || !after.field) return undefined
    const garden = { scene: before.scene, plantings: view.plantings, climate: view.climate }
    return effectsBetween(garden, before.field, after.field, on)
  }, [onSeason, before, after, view, on])
  const name = (id: string) => view.features.find((f) => f.id === id)?.name ?? 'It'
  return (
    <section className="light-panel" aria-label="What if">
      <div className="spread">
        <h2>What if</h2>
        <Button size="small" look="text" onClick={onDrop}>
          Put all back
        </Button>
      </div>
      <p>{suppositions.map((t) => suppositionClause(t, name(t.obstructionId))).join('; ')}.</p>
      {onSeason ? (
        <Button size="small" onClick={onSeason}>
          Show the season, to see who is affected
        </Button>
      ) : effects ? (
        <Effects effects={effects} onSelect={onSelect} />
      ) : (
        <p className="soft">Working it out.</p>
      )}
    </section>
  )
}

export function Effects({
  effects,
  onSelect,
}: {
  effects: readonly LightEffect[]
  onSelect: (plantingId: string) => void
}) {
  const { view } = useGardenContext()
  const plantings = new Map(view.plantings.map((p) => [p.id, p]))
  const leaving = effects.filter((e) => e.outsideThen && !e.outsideNow)
  const returning = effects.filter((e) => e.outsideNow && !e.outsideThen)
  const rest = effects.filter((e) => e.outsideNow === e.outsideThen)
  if (effects.length === 0) return <p className="soft">No planting’s light moves by half an hour or more.</p>
  return (
    <>
      <p>
        <b>{counted(leaving.length, 'planting')}</b> would leave the light it likes, <b>{returning.length}</b>{' '}
        come back into it; {rest.length} more would notice.
      </p>
      <ul className="effects">
        {[...leaving, ...returning, ...rest].slice(0, MOST_LISTED).map((e) => (
          <li key={e.plantingId}>
            <button type="button" className="plain" onClick={() => onSelect(e.plantingId)}>
              <span className="taxon">{plantings.get(e.plantingId)?.taxon.botanical}</span>
              <span>
                {quarterHours(e.now.total)} → {quarterHours(e.then.total)}
                {e.outsideThen && !e.outsideNow && <b> leaves</b>}
                {e.outsideNow && !e.outsideThen && <b> fits again</b>}
              </span>
            </button>
          </li>
        ))}
      </ul>
      {effects.length > MOST_LISTED && <small>and {effects.length - MOST_LISTED} more</small>}
    </>
  )
}
