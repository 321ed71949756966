import type { BloomView } from '@border/contract'
import {
  counted,
  dayMonth,
  daysBetween,
  listed,
  LEAST_COVER,
  seasonYearOf,
  type BloomSeen,
} from '@border/core'
import { Select } from 'antd'
import { scaleLinear } from 'd3-scale'
import { useState } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Answered } from '../frame/Answered.tsx'
import { useSize } from '../frame/useSize.ts'
import { useBloom } from './queries.ts'
import { KindName } from '../frame/KindName.tsx'

/** Bloom of a season by place and week: seen against expected, with gaps named and what would fill them. */
export function Bloom({ seasons }: { seasons: readonly number[] }) {
  const { view, today } = useGardenContext()
  const [season, setSeason] = useState(seasons.at(-1) ?? seasonYearOf(today, view.garden.latitude < 0))
  return (
    <Answered of={[useBloom(view.garden.id, season)]}>
      {(bloom) => <BloomOf data={bloom} seasons={seasons} season={season} onSeason={setSeason} />}
    </Answered>
  )
}

function BloomOf({
  data,
  seasons,
  season,
  onSeason,
}: {
  data: BloomView
  seasons: readonly number[]
  season: number
  onSeason: (season: number) => void
}) {
  const { view } = useGardenContext()
  const nameOf = usePlaceName()
  const [placeId, setPlaceId] = useState<string>()
  const forLeaf = (id: string) => view.plantings.every((p) => p.placeId !== id || !p.taxon.bloomFrom)
  // What is grown for its leaves has no gaps.
  const places = data.places.map((p) => (forLeaf(p.placeId) ? { ...p, gaps: [] } : p))
  const place =
    places.find((p) => p.placeId === placeId) ?? places.find((p) => p.gaps.length > 0) ?? places[0]
  return (
    <div className="screen-split">
      <div className="screen-body">
        <div className="spread">
          <h2>In flower, by week</h2>
          <Select
            aria-label="Season"
            value={season}
            options={(seasons.length > 0 ? seasons : [season]).map((y) => ({
              value: y,
              label: `Season ${y}`,
            }))}
            onChange={onSeason}
          />
        </div>
        <p className="soft">
          Planted ground in flower: filled where a walk saw it, outlined where it is expected of the plants
          and the year. Weeks under {Math.round(100 * LEAST_COVER)} % count as a gap.
        </p>
        <ul className="bloom-places">
          {places.map((p) => (
            <PlaceRow
              key={p.placeId}
              place={p}
              window={data.window}
              isForLeaf={forLeaf(p.placeId)}
              isChosen={p === place}
              onChoose={() => setPlaceId(p.placeId)}
            />
          ))}
        </ul>
      </div>
      <aside className="stack" aria-label="The place chosen" tabIndex={0}>
        {place && <PlaceBloom place={place} bloom={data} name={nameOf(place.placeId)} />}
      </aside>
    </div>
  )
}

interface PlaceRowProps {
  place: BloomView['places'][number]
  window: BloomView['window']
  isForLeaf: boolean
  isChosen: boolean
  onChoose: () => void
}

/** A place with its weeks, and how many of them have nothing. */
function PlaceRow({ place, window, isForLeaf, isChosen, onChoose }: PlaceRowProps) {
  const nameOf = usePlaceName()
  const weeks = place.gaps.reduce((n, g) => n + g.weeks, 0)
  const says = isForLeaf
    ? 'grown for leaf'
    : weeks === 0
      ? 'no gap'
      : `${counted(weeks, 'week')} with nothing`
  return (
    <li>
      <button
        type="button"
        aria-pressed={isChosen}
        onClick={onChoose}
        className={isChosen ? 'is-chosen' : undefined}
      >
        <span className="bloom-name">
          {nameOf(place.placeId)}
          <small>{says}</small>
        </span>
        <Weeks place={place} window={window} />
      </button>
    </li>
  )
}

const HEIGHT = 40
const TOP_COVER = 0.5

function Weeks({ place, window }: { place: BloomView['places'][number]; window: BloomView['window'] }) {
  const [ref, { width }] = useSize()
  const total = Math.max(1, daysBetween(window.from, window.to))
  const x = scaleLinear([0, total], [0, width])
  const y = scaleLinear([0, TOP_COVER], [HEIGHT - 12, 2]).clamp(true)
  const months = monthStarts(window)
  return (
    <div ref={ref} className="bloom-weeks">
      {width > 0 && (
        <svg width={width} height={HEIGHT} aria-hidden>
          {place.gaps.map((g) => (
            <rect
              key={g.from}
              className="bloom-gap"
              x={x(daysBetween(window.from, g.from))}
              width={Math.max(2, x(daysBetween(g.from, g.to) + 1))}
              y={0}
              height={HEIGHT - 12}
            />
          ))}
          {place.weeks.map((w) => (
            <rect
              key={w.from}
              className={w.seen ? 'bloom-week is-seen' : 'bloom-week'}
              x={x(daysBetween(window.from, w.from)) + 0.5}
              width={Math.max(1, x(7) - 1.5)}
              y={y(w.cover)}
              height={HEIGHT - 12 - y(w.cover)}
            />
          ))}
          <line x1={0} x2={width} y1={HEIGHT - 12} y2={HEIGHT - 12} className="taxon-rule" />
          {months.map((m) => (
            <text key={m} x={x(daysBetween(window.from, m)) + 1} y={HEIGHT - 2}>
              {dayMonth(m).split(' ')[1]!.slice(0, 1)}
            </text>
          ))}
        </svg>
      )}
    </div>
  )
}

function monthStarts({ from, to }: { from: string; to: string }): string[] {
  const starts: string[] = []
  let [year, month] = from.split('-').map(Number) as [number, number]
  for (;;) {
    month++
    if (month > 12) [year, month] = [year + 1, 1]
    const start = `${year}-${String(month).padStart(2, '0')}-01`
    if (start > to) return starts
    starts.push(start)
  }
}

function PlaceBloom({
  place,
  bloom,
  name,
}: {
  place: BloomView['places'][number]
  bloom: BloomView
  name: string
}) {
  const { view } = useGardenContext()
  const plantings = new Map(view.plantings.map((p) => [p.id, p]))
  const blooms = bloom.blooms.filter((b) => plantings.get(b.plantingId)?.placeId === place.placeId)
  return (
    <>
      <section>
        <h2>{name}</h2>
        {place.gaps.length === 0 && <p>Something is in flower in every week of its season.</p>}
        {place.gaps.map((g) => (
          <article key={g.from} className="cause">
            <h3>
              {dayMonth(g.from)} to {dayMonth(g.to)} <small>{counted(g.weeks, 'week')}</small>
            </h3>
            {g.fillers.length === 0 ? (
              <p className="soft">Nothing in the library that stands this place flowers then.</p>
            ) : (
              <p>
                Would fill it and stand the place:{' '}
                {listed(g.fillers.map((f) => `${f.taxon} (${counted(f.weeks, 'week')})`))}.
              </p>
            )}
          </article>
        ))}
      </section>
      {bloom.effects.length > 0 && (
        <section>
          <h2>Cuts tried in this garden</h2>
          <ul className="plain-list">
            {bloom.effects.map((e) => (
              <li key={`${e.taxon} ${e.what} ${e.season}`}>
                <KindName of={{ botanical: e.taxon }} isShort />, {e.what} in {e.season}: {e.says}
              </li>
            ))}
          </ul>
        </section>
      )}
      <section>
        <h2>Seen against expected</h2>
        {blooms.length === 0 && <p className="soft">No bloom was noted here in {bloom.season}.</p>}
        <ul className="plain-list">
          {blooms.map((b) => (
            <li key={b.plantingId}>
              <KindName of={plantings.get(b.plantingId)!.taxon} isShort />: {bloomWords(b)}
            </li>
          ))}
        </ul>
      </section>
    </>
  )
}

function bloomWords(b: BloomSeen): string {
  const seen =
    b.first === b.last ? `seen ${dayMonth(b.first)}` : `seen ${dayMonth(b.first)} to ${dayMonth(b.last)}`
  const flush = b.flushes > 1 ? `, ${b.flushes} flushes` : ''
  const expected = b.expected ? `; expected ${dayMonth(b.expected.from)} to ${dayMonth(b.expected.to)}` : ''
  const late =
    b.lateDays === undefined
      ? ''
      : Math.abs(b.lateDays) < 5
        ? ', on time'
        : `, about ${counted(Math.abs(b.lateDays), 'day')} ${b.lateDays > 0 ? 'late' : 'early'}`
  return `${seen}${flush}${expected}${late}`
}
