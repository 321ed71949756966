import type { WalkView } from '@border/contract'
import { bloomStages, dayMonthYear, ratingWords, signWords, stageWords } from '@border/core'
import { Link, useLocation } from 'react-router'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { useWalk } from './queries.ts'
import './sheet.css'
import { KindName } from '../frame/KindName.tsx'

const SIGNS_ON_PAPER = 5

/** The walk on paper: places in walking order, boxes to tick, and room to write. */
export function SheetScreen() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useWalk(view.garden.id)]} title="Walk on paper">
      {(walk) => <Sheet walk={walk} />}
    </Answered>
  )
}

function Sheet({ walk }: { walk: WalkView }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  return (
    <>
      <ScreenHead
        title="Walk on paper"
        lead="Tick and write outdoors; afterwards type it in, in the same order."
        isNotPrinted
      >
        <Link to={{ pathname: '../walk/grid', search }}>Type a sheet in</Link>
        <Link to={{ pathname: '../walk', search }}>Back to the walk</Link>
        <Button look="primary" onClick={() => print()}>
          Print it
        </Button>
      </ScreenHead>
      <div className="screen-body sheet" tabIndex={0} aria-label="The sheet">
        <p className="sheet-title">
          <b>{view.garden.name}</b>, sheet of {dayMonthYear(walk.on)}. Walked on ____________ by ____________
        </p>
        <p className="sheet-key">
          {ratingWords.map((w, i) => `${i + 1} ${w}`).join(' · ')} · bloom:{' '}
          {bloomStages.map((s) => stageWords[s]).join(' / ')} · ∅ nothing shows
        </p>
        {walk.places
          .filter((p) => p.plantings.length > 0)
          .map((p) => (
            <table key={p.id}>
              <caption>
                <div>
                  <h2>{p.name}</h2>
                  <span>weeds – some many · mulch good thin none · soil dry moist wet · holes ______ m</span>
                </div>
              </caption>
              <thead>
                <tr>
                  <th>Planting, and what is usual now</th>
                  <th>Rating</th>
                  <th>Bloom</th>
                  <th>Living</th>
                  <th>Signs and note</th>
                </tr>
              </thead>
              <tbody>
                {p.plantings.map((x) => (
                  <tr key={x.id}>
                    <td>
                      <b>{x.tag}</b> <KindName of={x} />
                      <small>
                        {x.usual}
                        {x.last?.rating ? `; last ${x.last.rating}` : ''}
                      </small>
                    </td>
                    <td className="sheet-boxes">1 2 3 4 5 ∅</td>
                    <td className="sheet-line">
                      {x.usualStage === 'none' ? '' : `☐ ${stageWords[x.usualStage]}`}
                    </td>
                    <td className="sheet-line">__ of {x.plantedCount}</td>
                    <td>
                      {x.likely
                        .slice(0, SIGNS_ON_PAPER)
                        .map((s) => `☐ ${signWords(s)}`)
                        .join('  ')}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          ))}
      </div>
    </>
  )
}
