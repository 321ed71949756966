import { counted, placeOf, sceneOf, surfaceHeightM, type MeasuringWorth } from '@border/core'
import { useQuery } from '@tanstack/react-query'
import { useMemo } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { askLight } from '../light/lightPool.ts'
import '../draw/draw.css'

const SHOWN = 5
const sizeWords = { heightM: 'height', crownRadiusM: 'crown radius', clearStemM: 'clear stem' } as const

/** Which measurement is worth taking better, by what its error does to the light of what grows here. */
export function WorthMeasuring({ onChoose }: { onChoose: (featureId: string) => void }) {
  const { view, on } = useGardenContext()
  const asked = useMemo(() => {
    const places = new Map(view.features.flatMap((f) => placeOf(f) ?? []).map((p) => [p.id, p]))
    const plantings = view.plantings.map(({ id, placeId, x, y }) => ({
      id,
      point: { x, y, z: surfaceHeightM(places.get(placeId)) },
    }))
    return { scene: sceneOf(view.garden, view.features), features: view.features, plantings }
  }, [view])
  const { data } = useQuery({
    // By all that it is worked out from: a size put right is another question.
    queryKey: ['worth measuring', on, asked],
    queryFn: () =>
      askLight('worth', (worker) => worker.worth(asked.scene, asked.features, asked.plantings, on)),
    staleTime: Infinity,
    enabled: asked.plantings.length > 0,
  })
  if (!data || data.length === 0) return null
  const tagOf = (id: string) => view.plantings.find((p) => p.id === id)?.tag ?? id
  return (
    <section aria-label="Worth measuring better">
      <h2>Worth measuring better</h2>
      <ol className="changes">
        {data.slice(0, SHOWN).map((w) => (
          <li key={`${w.featureId} ${w.size}`}>
            <p>{worthWords(w, tagOf(w.at))}</p>
            <Button size="small" look="text" onClick={() => onChoose(w.featureId)}>
              Measure it
            </Button>
          </li>
        ))}
      </ol>
    </section>
  )
}

/** What a size is, how far it may be out, and what hangs on that. */
export function worthWords(w: MeasuringWorth, tag: string): string {
  const minutes = Math.round((w.mostHours * 60) / 5) * 5
  const out = `${w.isAssumed ? 'taken to be out by' : 'measured to'} ${w.sdM.toFixed(1)}\u00a0m`
  return `${w.name}, ${sizeWords[w.size]} ${w.valueM.toFixed(1)}\u00a0m, ${out}: so much either way is ${minutes} minutes of sun a day at ${tag}${
    w.moved > 1 ? `, and moves ${counted(w.moved - 1, 'planting')} more` : ''
  }.`
}
