import type { ContainersView, LineView } from '@border/contract'
import { capitalised, dayMonth, listed, monthYear, type Taxon } from '@border/core'
import { group } from 'd3-array'
import { Link, useLocation } from 'react-router'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { rootWords } from './potWords.ts'
import { useLine } from './queries.ts'
import type { RowPot } from './usePotRow.ts'

interface Props {
  pots: readonly RowPot[]
  found: ContainersView
  taxa: readonly Taxon[]
}

/** Woody plants along the line of containers that there are: who stands where in which year, and who goes to the ground at last. */
export function PotYears(props: Props) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useLine(view.garden.id)]} waiting="Which plant goes on to which pot is being worked out.">
      {(line) => <Line {...props} line={line} />}
    </Answered>
  )
}

function Line({ pots, found, taxa, line }: Props & { line: LineView }) {
  const potName = (id: string) => pots.find((p) => p.id === id)?.name ?? 'a pot'
  const kindName = (botanical: string) => taxa.find((t) => t.botanical === botanical)?.common ?? botanical
  return (
    <div className="screen-body pots-parts">
      {line.plants.length > 0 ? (
        <BySeason {...{ line, potName, kindName }} />
      ) : (
        <p>
          No shrub or tree stands in a pot here. One that does is followed through the years: when its roots
          have filled its pot, which of your pots it goes on to, and when it is better given to the ground.
        </p>
      )}
      <PlantedOut {...{ potName, kindName }} out={line.out} />
      <MixDue found={found} nameOf={potName} />
    </div>
  )
}

/** How pots and kinds are called. */
interface Names {
  potName: (id: string) => string
  kindName: (botanical: string) => string
}

function BySeason({ line: { seasons, plants }, potName, kindName }: Names & { line: LineView }) {
  const { today } = useGardenContext()
  const { search } = useLocation()
  return (
    <>
      <p>
        The line of pots you have, shared out so that roots are cramped least, moves are few and displays are
        kept: all of them together, season by season. What you decide is yours.
      </p>
      <div className="pots-scroll">
        <table className="pots-days pot-line" aria-label="Pots by season">
          <thead>
            <tr>
              <th scope="col">Plant</th>
              {seasons.map((s) => (
                <th key={s} scope="col">
                  {s}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {plants.map((p) => (
              <tr key={p.plantingId}>
                <th scope="row">
                  <Link to={{ pathname: `../plants/${p.plantingId}`, search }}>{kindName(p.botanical)}</Link>
                  <small className="soft">{rootWords(p.fillOn, 'Its roots', today)}</small>
                </th>
                {p.steps.map((s, k) => (
                  <td key={s.season} className={s.isMoved ? 'moved' : s.isBound ? 'bound' : undefined}>
                    {s.potId === null
                      ? s.isMoved
                        ? `to the ground${p.ground ? `, ${p.ground.placeName}` : ''}`
                        : 'in the ground'
                      : k === 0 || s.isMoved
                        ? potName(s.potId)
                        : 'stays'}
                    <small className="soft">
                      {s.isPruned ? 'roots pruned ' : s.isBound && !s.isMoved ? 'cramped ' : ''}
                      {s.window && `${dayMonth(s.window.from)} to ${dayMonth(s.window.to)}`}
                    </small>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <small className="soft">
        Cramped: the pot keeps it smaller than a deeper one would. Where it stays so, a third of its roots are
        cut away every third spring and fresh mix is put in their place.
      </small>
    </>
  )
}

/** What lasts and could be planted out, and where it would do best. */
function PlantedOut({ out, potName, kindName }: Names & { out: LineView['out'] }) {
  const { search } = useLocation()
  if (out.length === 0) return null
  return (
    <section>
      <h2>Could be planted out</h2>
      <ul className="plain-list">
        {out.map((p) => (
          <li key={p.plantingId}>
            <Link to={{ pathname: `../plants/${p.plantingId}`, search }}>{kindName(p.botanical)}</Link> of{' '}
            {potName(p.potId)}: best in {p.placeName}, which has room and suits it.
          </li>
        ))}
      </ul>
    </section>
  )
}

/** When all of the mix of each container must be new, the soonest first. */
function MixDue({ found, nameOf }: { found: ContainersView; nameOf: (id: string) => string }) {
  const { today } = useGardenContext()
  const due = found.pots
    .flatMap((p) => (p.mix.state?.wholeOn ? [{ id: p.id, on: p.mix.state.wholeOn }] : []))
    .sort((a, b) => (a.on < b.on ? -1 : 1))
  if (due.length === 0) return null
  return (
    <section>
      <h2>All of the mix new</h2>
      <ul className="plain-list pot-due">
        {[...group(due, (d) => (d.on <= today ? 'now' : monthYear(d.on)))].map(([when, of]) => (
          <li key={when}>
            <b>{capitalised(when)}</b>: {listed(of.map((d) => nameOf(d.id)))}
          </li>
        ))}
      </ul>
      <small className="soft">
        By what each was filled with, what was put to it since, and how such stuff rots and settles.
      </small>
    </section>
  )
}
