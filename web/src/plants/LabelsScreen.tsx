import type { PlantingView } from '@border/contract'
import { compareTags, counted, isPlace, isUnknown } from '@border/core'
import { useMemo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { qrOf } from './qr.ts'
import './labels.css'
import { KindName } from '../frame/KindName.tsx'

const sizes = ['small', 'large'] as const
type LabelSize = (typeof sizes)[number]

/** An address that leads nowhere on any other machine. */
const isOnlyHere = (host: string) => /^(localhost|127\.|\[::1\])/.test(host)

/** Labels to print: tag, name, and a code that opens the planting on a phone. */
export function LabelsScreen() {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const [placeId, setPlaceId] = useState('')
  const [size, setSize] = useState<LabelSize>('small')
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const there = view.plantings
    .filter((p) => placeId === '' || p.placeId === placeId)
    .sort((a, b) => compareTags(a.tag, b.tag))
  const chosen = there.filter((p) => !left.has(p.id))
  const toggle = (id: string) => {
    const next = new Set(left)
    if (!next.delete(id)) next.add(id)
    setLeft(next)
  }
  return (
    <>
      <ScreenHead
        title="Labels"
        lead="A label for each planting; a phone that reads the code opens its story."
        isNotPrinted
      >
        <Link to={{ pathname: '../plants', search }}>All plantings</Link>
        <Button look="primary" disabled={chosen.length === 0} onClick={() => print()}>
          Print {counted(chosen.length, 'label')}
        </Button>
      </ScreenHead>
      <div className="screen-body labels">
        <div className="no-print stack">
          <div className="row">
            <Choose
              label="Of which place"
              value={placeId}
              onChange={setPlaceId}
              options={[
                { value: '', label: 'The whole garden' },
                ...view.features.filter(isPlace).map((f) => ({ value: f.id, label: f.name })),
              ]}
            />
            <Segments
              label="Size"
              value={size}
              onChange={setSize}
              options={[
                { value: 'small', label: '70 × 25 mm' },
                { value: 'large', label: '100 × 50 mm' },
              ]}
            />
            <Button size="small" onClick={() => setLeft(new Set())} disabled={left.size === 0}>
              All of them
            </Button>
            <Button size="small" onClick={() => setLeft(new Set(there.map((p) => p.id)))}>
              None
            </Button>
          </div>
          {isOnlyHere(window.location.host) && (
            <p className="label-warning">
              The codes lead to {window.location.origin}, which no other machine reaches. Open this page at
              the address that your phones use, and print it from there.
            </p>
          )}
          {there.length === 0 && <p className="soft">Nothing grows there.</p>}
        </div>
        <ul className={`label-sheet ${size}`} aria-label="Labels">
          {there.map((p) => (
            <li key={p.id} className={left.has(p.id) ? 'left no-print' : undefined}>
              <label className="no-print">
                <input
                  type="checkbox"
                  aria-label={`Print the label of ${p.tag}`}
                  checked={!left.has(p.id)}
                  onChange={() => toggle(p.id)}
                />
              </label>
              <PlantLabel planting={p} />
            </li>
          ))}
        </ul>
      </div>
    </>
  )
}

function PlantLabel({ planting: { id, tag, taxon } }: { planting: PlantingView }) {
  const { view } = useGardenContext()
  const { size, path } = useMemo(
    () => qrOf(`${window.location.origin}/g/${view.garden.id}/plants/${id}`),
    [view.garden.id, id],
  )
  return (
    <article className="plant-label">
      <svg viewBox={`0 0 ${size} ${size}`} role="img" aria-label={`Opens ${tag}`} shapeRendering="crispEdges">
        <rect width={size} height={size} fill="#fff" />
        <path d={path} fill="#000" />
      </svg>
      <div>
        <b>{tag}</b>
        {isUnknown(taxon) ? <span>to be named</span> : <KindName of={taxon} />}
      </div>
    </article>
  )
}
