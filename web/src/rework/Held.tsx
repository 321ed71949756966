import type { JobView } from '@border/contract'
import { capitalised } from '@border/core'
import { sum } from 'd3-array'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useTaxa } from '../plants/queries.ts'
import { useRecord } from '../record/queries.ts'
import { heldKinds, heldWords, isWeak, type HeldDrift, type HeldKind } from './held.ts'
import './rework.css'

/** What became of what was planted by a scheme: what is alive, and how each kind was rated, season by season. */
export function Held({ jobs }: { jobs: readonly JobView[] }) {
  const { view } = useGardenContext()
  const { data: taxa = [] } = useTaxa()
  const planted = jobs.flatMap((j): HeldDrift[] =>
    j.sets && j.done?.lived
      ? [
          {
            common: taxa.find((t) => t.botanical === j.sets!.botanical)?.common ?? j.sets.botanical,
            plantingIds: j.plantingIds,
            planted: j.done.lived,
            living: sum(
              view.plantings.filter((p) => j.plantingIds.includes(p.id)),
              (p) => p.livingCount,
            ),
          },
        ]
      : [],
  )
  return planted.length > 0 ? <Rated planted={planted} /> : null
}

function Rated({ planted }: { planted: readonly HeldDrift[] }) {
  const { view } = useGardenContext()
  const record = useRecord(view.garden.id)
  const kinds = heldKinds(planted, record.data?.stays ?? [])
  return (
    <>
      <p>{heldWords(kinds)}</p>
      {record.isError ? (
        <p className="late">How it was rated could not be read.</p>
      ) : record.data ? (
        <details>
          <summary>How each kind held</summary>
          <table className="rework-table" aria-label="How each kind held">
            <thead>
              <tr>
                <th>Kind</th>
                <th className="figure">Alive</th>
                <th>Rated of 5, by season</th>
              </tr>
            </thead>
            <tbody>
              {kinds.map((k) => (
                <KindRow key={k.common} kind={k} />
              ))}
            </tbody>
          </table>
        </details>
      ) : (
        <p className="soft">How it was rated is being read…</p>
      )}
    </>
  )
}

const KindRow = ({ kind }: { kind: HeldKind }) => (
  <tr>
    <td>{capitalised(kind.common)}</td>
    <td className="figure">
      {kind.living} of {kind.planted}
    </td>
    <td className={isWeak(kind) ? 'late' : undefined}>
      {kind.seasons.length === 0 ? (
        <span className="soft">not rated yet</span>
      ) : (
        kind.seasons.map(({ year, rating }) => `${year}: ${rating.toFixed(1)}`).join(', ')
      )}
    </td>
  </tr>
)
