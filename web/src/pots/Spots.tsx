import type { SpotsView } from '@border/contract'
import type { Point } from '@border/core'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { LightAt } from './LightAt.tsx'
import { lightOffWords, RIGHT_H, sunWords } from './potWords.ts'
import type { RowPot } from './usePotRow.ts'
import { useSpots } from './queries.ts'

const WIDTH = 300
const HEIGHT = 200
/** Containers that are named for a spot. */
const SHOWN = 3

/** Where in the garden a container would have the light that its plants want, and which others would do better where it stands. */
export function Spots({ pot }: { pot: RowPot }) {
  const { view } = useGardenContext()
  const [isAsked, ask] = useState(false)
  const spots = useSpots(view.garden.id, pot.id, isAsked)
  return (
    <section>
      <h3>Where it would do best</h3>
      {isAsked ? (
        <Answered of={[spots]} waiting="The light of every open spot is being worked out.">
          {(found) => <Found found={found} pot={pot} />}
        </Answered>
      ) : (
        <Button size="small" onClick={() => ask(true)}>
          Look through the garden
        </Button>
      )}
    </section>
  )
}

function Found({ found: { here, better, forHere }, pot }: { found: SpotsView; pot: RowPot }) {
  const { view, on } = useGardenContext()
  const { search } = useLocation()
  const nameOf = usePlaceName()
  const [pointed, point] = useState<Point>()
  const taxa = pot.plants.map((p) => p.taxon)
  const suited = forHere.filter((p) => p.missesH < RIGHT_H && p.missesNowH >= RIGHT_H).slice(0, SHOWN)
  return (
    <>
      <p>
        {here.missesH < RIGHT_H
          ? `Where it stands its plants have the light they want: ${sunWords(here.hours)}.`
          : `Where it stands it has ${sunWords(here.hours)}, ${lightOffWords(taxa, here.hours)}.`}
      </p>
      <PlanDrawing
        features={view.features}
        plantings={[]}
        on={on}
        northDeg={view.garden.northDeg}
        width={WIDTH}
        height={HEIGHT}
        label="Spots for it"
        isQuiet
        onPoint={(p) => point(p?.at)}
        overlay={(scale) =>
          [here, ...better].map((s, i) => (
            <g key={`${s.x} ${s.y}`} className={i === 0 ? 'pot-spot here' : 'pot-spot'}>
              <circle cx={scale.x(s.x)} cy={scale.y(s.y)} r={9} />
              <text x={scale.x(s.x)} y={scale.y(s.y) + 4} textAnchor="middle">
                {i === 0 ? 'now' : i}
              </text>
            </g>
          ))
        }
      />
      {pointed ? (
        <LightAt at={pointed} rimHeightM={pot.vessel.rimHeightM} taxa={taxa} />
      ) : (
        <small className="soft">Point at the plan: the light of that spot is said here.</small>
      )}
      {better.length > 0 ? (
        <>
          <ol className="plain-list">
            {better.map((s, i) => (
              <li key={`${s.x} ${s.y}`}>
                {i + 1}: {sunWords(s.hours)}
                {s.missesH >= RIGHT_H && `, ${lightOffWords(taxa, s.hours)}`}
              </li>
            ))}
          </ol>
          <Link to={{ pathname: '../plan', search }}>Move it on the plan</Link>
        </>
      ) : (
        here.missesH >= RIGHT_H && <p>No open spot of the garden suits them better.</p>
      )}
      {suited.length > 0 && (
        <p>
          What would have its light here, and lacks it where it stands:{' '}
          {suited.map((p) => nameOf(p.id)).join(', ')}.
        </p>
      )}
    </>
  )
}
