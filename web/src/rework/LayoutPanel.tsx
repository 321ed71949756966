import type { SaidScheme } from '@border/contract'
import {
  checksOf,
  counted,
  driftsM2,
  openM2,
  tenths,
  withCount,
  withRestFilled,
  type Arrangement,
  type BedGround,
  type CheckedBy,
} from '@border/core'
import { useMemo, useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useCanChange } from './canChange.ts'
import { DriftTools, Mirror } from './DriftTools.tsx'
import { Figure } from '../frame/Figure.tsx'
import type { useLayingOut } from './useLayingOut.ts'
import './rework.css'

interface Props {
  ground: BedGround
  arranged: Arrangement
  said: SaidScheme
  onSay: (change: Partial<SaidScheme>) => void
  onArranged: (arranged: Arrangement) => void
  laying: ReturnType<typeof useLayingOut>
  chosen: string | undefined
  onChoose: (driftId: string | undefined) => void
  garden: CheckedBy['garden']
  drawsFor: string | undefined
  onDrawFor: (botanical: string | undefined) => void
}

/** Where the drifts lie: laid out, then arranged by hand, with what is to be said of it. */
export function LayoutPanel(props: Props) {
  const { ground, arranged, said, onArranged, laying, chosen, onChoose, garden } = props
  const canChange = useCanChange()
  const [seed, setSeed] = useState(1)
  const isLaid = arranged.has.some((k) => k >= 0)
  const open = openM2(ground, arranged)
  const drift = arranged.drifts.find((d) => d.id === chosen)
  if (arranged.drifts.length === 0)
    return (
      <p className="soft">
        No kind is chosen that wants ground of its own. Choose some first, or let a palette be proposed.
      </p>
    )
  return (
    <>
      {canChange && (
        <div className="row">
          {laying.progress === undefined ? (
            <>
              <Button
                look={isLaid ? 'default' : 'primary'}
                onClick={() => {
                  void laying.begin(ground, arranged, seed)
                  setSeed(seed + 1)
                }}
              >
                {isLaid ? 'Lay it out another way' : 'Lay it out'}
              </Button>
              {isLaid && open > 0.3 && (
                <Button onClick={() => onArranged(withRestFilled(ground, arranged))}>Fill the rest</Button>
              )}
            </>
          ) : (
            <>
              <progress max={1} value={laying.progress} aria-label="Laying out" />
              <Button size="small" onClick={laying.stop}>
                Stop
              </Button>
            </>
          )}
        </div>
      )}
      <p className="soft">
        {isLaid
          ? `${open < 0.05 ? 'All of it is planted' : `${tenths(open)} m² of ${tenths(ground.of.place.areaM2)} are open`}. Drag a drift to where it is to lie: the others make room.`
          : 'Each drift wants ground: they are laid out by height, light and shape, about what stays.'}
      </p>
      <ul className="rework-list" aria-label="Drifts">
        {arranged.drifts.map((d, k) => (
          <li key={d.id} className={`drift-row${d.id === chosen ? ' rework-chosen' : ''}`}>
            <Button
              look="link"
              size="small"
              aria-pressed={d.id === chosen}
              onClick={() => onChoose(d.id === chosen ? undefined : d.id)}
            >
              {d.taxon.common}
            </Button>
            <small>
              {d.isDrawn && 'drawn, '}
              {d.isMatrix && 'runs through, '}
              {tenths(driftsM2(ground, arranged)[k]!)} m²
            </small>
            {canChange && !d.isMatrix ? (
              <Figure
                label={`How many ${d.taxon.common}`}
                value={d.count}
                min={1}
                max={2000}
                onSay={(n) => onArranged(withCount(ground, arranged, d.id, n!))}
              />
            ) : (
              <span>{d.count}</span>
            )}
          </li>
        ))}
      </ul>
      {canChange && drift && <DriftTools {...props} id={drift.id} />}
      {canChange && <Drawing {...props} />}
      {canChange && isLaid && <Mirror {...props} />}
      {canChange && <Viewing {...props} />}
      {isLaid && (
        <Checks ground={ground} arranged={arranged} said={said} garden={garden} onChoose={onChoose} />
      )}
    </>
  )
}

/** A drift drawn by hand on the bed. */
function Drawing({ arranged, drawsFor, onDrawFor }: Props) {
  const kinds = [...new Map(arranged.drifts.map((d) => [d.taxon.botanical, d.taxon])).values()]
  return (
    <div className="row">
      <Choose
        label="Draw a drift of"
        value={drawsFor ?? ''}
        options={[
          { value: '', label: 'Draw a drift by hand…' },
          ...kinds.map((t) => ({ value: t.botanical, label: t.common })),
        ]}
        onChange={(botanical) => onDrawFor(botanical || undefined)}
      />
      {drawsFor && (
        <>
          <small>Draw round it on the bed.</small>
          <Button size="small" onClick={() => onDrawFor(undefined)}>
            Done
          </Button>
        </>
      )}
    </div>
  )
}

const SIDES = [
  { deg: 0, label: 'the top of the plan' },
  { deg: 90, label: 'the right' },
  { deg: 180, label: 'the bottom' },
  { deg: 270, label: 'the left' },
]

/** From where the bed is seen, and from how far. */
function Viewing({ ground, said, onSay }: Props) {
  const { viewedFrom } = ground
  const options = (first: boolean) => [
    ...(first ? [] : [{ value: '', label: 'and no other side' }]),
    ...SIDES.map((s) => ({ value: String(s.deg), label: `from ${s.label}` })),
    ...viewedFrom
      .filter((d) => !SIDES.some((s) => s.deg === d))
      .map((d) => ({ value: String(d), label: `from ${d}°, as on the plan` })),
  ]
  const put = (i: 0 | 1, value: string) => {
    const next =
      i === 0
        ? [Number(value), ...viewedFrom.slice(1)]
        : [viewedFrom[0] ?? 180, ...(value ? [Number(value)] : [])]
    onSay({ viewedFrom: next.slice(0, 2) })
  }
  return (
    <div className="rework-wishes">
      <span>Seen</span>
      <span className="row">
        <Choose
          label="Seen from"
          value={String(viewedFrom[0] ?? 180)}
          options={options(true)}
          onChange={(v) => put(0, v)}
        />
        <Choose
          label="Seen also from"
          value={viewedFrom[1] === undefined ? '' : String(viewedFrom[1])}
          options={options(false)}
          onChange={(v) => put(1, v)}
        />
      </span>
      <span>From how far, metres</span>
      <Figure
        label="From how far it is seen"
        value={said.seenFromM}
        min={0.5}
        max={200}
        step={0.5}
        unit="m"
        canBeEmpty
        onSay={(seenFromM) => onSay({ seenFromM })}
      />
    </div>
  )
}

/** What is to be said of the arrangement: said, not forbidden. */
function Checks({
  ground,
  arranged,
  said,
  garden,
  onChoose,
}: Pick<Props, 'ground' | 'arranged' | 'said' | 'garden' | 'onChoose'>) {
  const checks = useMemo(
    () =>
      checksOf(ground, arranged, {
        garden,
        drifts: said.wishes.drifts,
        seenFromM: said.seenFromM ?? undefined,
      }),
    [ground, arranged, garden, said.wishes.drifts, said.seenFromM],
  )
  const nameOf = new Map(arranged.drifts.map((d) => [d.id, d.taxon.common]))
  return (
    <section aria-label="Checks">
      <h2>
        {checks.length === 0 ? 'Nothing to say against it' : counted(checks.length, 'thing') + ' to look at'}
      </h2>
      <ul className="rework-list rework-checks">
        {checks.map((c, i) => (
          <li key={i}>
            {c.driftId !== null && (
              <>
                <Button look="link" size="small" onClick={() => onChoose(c.driftId!)}>
                  {nameOf.get(c.driftId)}
                </Button>
                :{' '}
              </>
            )}
            {c.says}
          </li>
        ))}
      </ul>
    </section>
  )
}
