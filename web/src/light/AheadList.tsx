import type { AheadView } from '@border/contract'
import { causeClause, monthOf, quarterHours, yearOf, type ComingChange } from '@border/core'
import { memo } from 'react'
import { Link } from 'react-router'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useAhead } from './queries.ts'
import { causeHours } from './causeHours.ts'
import { Effects } from './EffectsList.tsx'
import { KindName } from '../frame/KindName.tsx'

/** Plantings that will leave the light they like, year by year, and the changes that are waiting to happen. */
export const AheadList = memo(function AheadList(chosen: Chosen) {
  const { view, asOf } = useGardenContext()
  return (
    <Answered
      of={[useAhead(view.garden.id, asOf)]}
      waiting="Growing everything on, year by year. The first time takes a few seconds."
    >
      {(ahead) => <Ahead ahead={ahead} {...chosen} />}
    </Answered>
  )
})

interface Chosen {
  selectedId: string | undefined
  onSelect: (plantingId: string) => void
  onObstruction: (featureId: string) => void
}

function Ahead({ ahead, selectedId, onSelect, onObstruction }: Chosen & { ahead: AheadView }) {
  const { view, on } = useGardenContext()
  const names = new Map(view.features.map((f) => [f.id, f.name]))
  const years = [...new Set(ahead.coming.map((c) => c.year))]
  const until = yearOf(on) + ahead.years
  return (
    <>
      {ahead.waiting.map((w) => (
        <section key={w.obstructionId} className="ahead-waiting">
          <h2>
            <button type="button" className="plain" onClick={() => onObstruction(w.obstructionId)}>
              {names.get(w.obstructionId)}
            </button>
          </h2>
          <p>In {w.health} health: a change waiting. When it goes, what stands in its shade gets this.</p>
          <Effects effects={w.effects} onSelect={onSelect} />
        </section>
      ))}
      {years.length === 0 ? (
        <p className="soft">
          As things grow and as planned changes come, no planting leaves the light it likes, or comes back
          into it, up to {until}.
        </p>
      ) : (
        years.map((year) => (
          <section key={year}>
            <h2>{year}</h2>
            {ahead.coming
              .filter((c) => c.year === year)
              .map((c) => (
                <Coming
                  key={c.plantingId}
                  change={c}
                  selected={c.plantingId === selectedId}
                  onSelect={() => onSelect(c.plantingId)}
                />
              ))}
          </section>
        ))
      )}
      <small className="light-note">
        As recorded growth and dated changes carry on, looked at to {until}. A tree without recorded growth
        stays as it is: give it one in its panel.
      </small>
    </>
  )
}

function Coming({
  change: c,
  selected,
  onSelect,
}: {
  change: ComingChange
  selected: boolean
  onSelect: () => void
}) {
  const { view, on } = useGardenContext()
  const planting = view.plantings.find((p) => p.id === c.plantingId)
  const place = view.features.find((f) => f.id === planting?.placeId)
  if (!planting) return null
  const day = `${c.year}-${String(monthOf(on)).padStart(2, '0')}-01`
  return (
    <div>
      <button
        type="button"
        className={`outside-row${selected ? ' selected' : ''}`}
        aria-pressed={selected}
        onClick={onSelect}
      >
        <span className="spread">
          <KindName of={planting.taxon} isShort />
          <span className="word">{c.leaves ? 'leaves its light' : 'comes back'}</span>
        </span>
        <small className="spread">
          <span>{place?.name}</span>
          <span>
            {quarterHours(c.now.total)} now, {quarterHours(c.then.total)} then
          </span>
        </small>
        {c.causes.slice(0, 3).map((cause) => (
          <small key={cause.obstructionId}>
            {causeClause(cause)}: {causeHours(cause)}
          </small>
        ))}
      </button>
      {selected && (
        <p className="outside-way">
          <Link to={{ pathname: '../verdicts', search: `?on=${day}&planting=${c.plantingId}` }}>
            Weigh the verdict as of {c.year}
          </Link>
        </p>
      )}
    </div>
  )
}
