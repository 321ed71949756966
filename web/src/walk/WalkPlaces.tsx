import type { WalkPlace } from '@border/contract'
import { Checkbox } from 'antd'
import { Link, useLocation } from 'react-router'
import type { Noted } from './useNotes.ts'

interface Props {
  places: readonly WalkPlace[]
  place: WalkPlace
  noted: Noted
  onGo: (placeId: string) => void
  keepPosition: boolean
  onKeepPosition: (keeps: boolean) => void
}

/** The places in walking order, how far each has come, and the other ways to walk. */
export function WalkPlaces({ places, place, noted, onGo, keepPosition, onKeepPosition }: Props) {
  const { search } = useLocation()
  return (
    <nav className="walk-places" aria-label="Places in walking order">
      <ol>
        {places.map((p) => (
          <li key={p.id}>
            <button type="button" aria-current={p === place ? 'step' : undefined} onClick={() => onGo(p.id)}>
              <span>{p.name}</span>
              <small>
                {p.plantings.filter((x) => noted.has(`planting ${x.id}`)).length} of {p.plantings.length}
              </small>
            </button>
          </li>
        ))}
      </ol>
      <p className="walk-paper">
        On paper: <Link to={{ pathname: '../walk/sheet', search }}>print a sheet</Link>,{' '}
        <Link to={{ pathname: '../walk/grid', search }}>type one in</Link>
      </p>
      <Checkbox checked={keepPosition} onChange={(e) => onKeepPosition(e.target.checked)}>
        Keep where photos were taken
      </Checkbox>
    </nav>
  )
}
