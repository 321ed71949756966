import { wateringEndpoints, type WateringView } from '@border/contract'
import { counted } from '@border/core'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { shortDayMonth } from '../frame/words.ts'
import { useWatering } from './queries.ts'
import { KindName } from '../frame/KindName.tsx'

type Thirsty = WateringView['plants'][number]

/** What is not rooted in and needs water by a day; recorded as given place by place. */
export function Watering({ by, title }: { by?: string; title: string }) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useWatering(view.garden.id)]}>
      {(watering) =>
        (watering.plants.length > 0 || watering.unknown) && <ToWater data={watering} by={by} title={title} />
      }
    </Answered>
  )
}

function ToWater({ data, by, title }: { data: WateringView; by: string | undefined; title: string }) {
  const { view, isCrew, today } = useGardenContext()
  const nameOf = usePlaceName()
  const give = useGardenWrite(
    wateringEndpoints.give,
    { gardenId: view.garden.id },
    ({ given }) => `Water for ${counted(given.length, 'planting')} is on record.`,
  )
  const due = data.plants.filter((p) => p.dueOn !== null && (by === undefined || p.dueOn <= by))
  const rest = data.plants.length - due.length
  const places = [...new Set(due.map((p) => p.placeId))]
  return (
    <section className="watering">
      <h2>{title}</h2>
      {data.isSimulated && due.length > 0 && (
        <p className="simulated">
          Worked out from simulated rain and heat: feel the soil a finger deep before you water.
        </p>
      )}
      {data.unknown && <p className="soft">{data.unknown} Feel the soil a finger deep.</p>}
      {places.map((placeId) => {
        const here = due.filter((p) => p.placeId === placeId)
        const now = here.filter((p) => p.dueOn! <= (by ?? today))
        return (
          <div key={placeId}>
            <div className="spread">
              <h3>{nameOf(placeId, 'A place')}</h3>
              {isCrew && now.length > 0 && (
                <Button
                  size="small"
                  className="no-print"
                  loading={give.isPending}
                  onClick={() => give.mutate({ on: today, given: now })}
                >
                  Watered today: {litresOf(now)} l
                </Button>
              )}
            </div>
            <ul className="plain-list">
              {here.map((p) => (
                <li key={p.plantingId}>
                  <Link to={`../plants/${p.plantingId}`}>
                    <KindName of={p} isShort />, {p.tag}
                  </Link>
                  : {p.litres} l{p.dueOn! <= today ? ' now' : ` on ${shortDayMonth(p.dueOn!)}`}.{' '}
                  <small>{p.says}</small>
                </li>
              ))}
            </ul>
          </div>
        )
      })}
      {!data.unknown && (
        <small>
          {due.length === 0 && 'Nothing needs water. '}
          {rest > 0 &&
            `${counted(rest, 'planting')} not rooted in yet ${rest === 1 ? 'has' : 'have'} enough.`}
        </small>
      )}
    </section>
  )
}

const litresOf = (plants: readonly Thirsty[]) => plants.reduce((sum, p) => sum + p.litres, 0)
