import { benchEndpoints, type BenchView } from '@border/contract'
import { Form } from 'antd'
import { useState } from 'react'
import { Link } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { PlantingForm } from '../plants/PlantingForm.tsx'
import { TaxonSelect } from '../plants/TaxonSelect.tsx'
import { useBench } from './queries.ts'
import { KindName } from '../frame/KindName.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** Plants that wait for a place: pieces left over at a division, and what stands in pots. */
export function Bench() {
  const { view } = useGardenContext()
  const bench = useBench(view.garden.id)
  return (
    <section className="bench">
      <Answered of={[bench]}>{(bench) => <OnBench bench={bench} />}</Answered>
    </section>
  )
}

function OnBench({ bench }: { bench: readonly BenchView[] }) {
  const { isCrew } = useGardenContext()
  const [isAdding, setAdding] = useState(false)
  const [planting, setPlanting] = useState<BenchView | null>(null)
  return (
    <>
      <div className="spread">
        <h2>On the bench</h2>
        {isCrew && !isAdding && (
          <Button size="small" onClick={() => setAdding(true)}>
            Put something on it
          </Button>
        )}
      </div>
      {bench.length === 0 && <p className="soft">Nothing waits for a place.</p>}
      <ul className="plain-list now-jobs">
        {bench.map((b) => (
          <Waiting key={b.id} it={b} onPlant={() => setPlanting(b)} />
        ))}
      </ul>
      {isAdding && <PutForm onKept={() => setAdding(false)} />}
      {planting && <PlantingForm bench={planting} onClose={() => setPlanting(null)} />}
    </>
  )
}

/** What waits for a place, and where it can go. */
function Waiting({ it, onPlant }: { it: BenchView; onPlant: () => void }) {
  const { view, isHead, isCrew, today } = useGardenContext()
  const gone = useGardenWrite(
    benchEndpoints.gone,
    { gardenId: view.garden.id, benchId: it.id },
    ({ gone: how }) => `Off the bench: ${how}.`,
  )
  return (
    <li>
      <span>
        {it.count} <KindName of={it} isShort />
      </span>
      <small>
        since {shortDate(it.since)}
        {it.fromTag && `, divided from ${it.fromTag}`}
        {it.note && (
          <>
            ; <span translate="no">{it.note}</span>
          </>
        )}
      </small>
      {isCrew && (
        <span className="row">
          <Link to={{ pathname: '../rework', search: `?show=fit&kind=${encodeURIComponent(it.botanical)}` }}>
            Where could it go?
          </Link>
          {isHead && (
            <Button size="small" onClick={onPlant}>
              Plant it
            </Button>
          )}
          <Button size="small" onClick={() => gone.mutate({ on: today, gone: 'given away' })}>
            Given away
          </Button>
          <Button size="small" onClick={() => gone.mutate({ on: today, gone: 'thrown away' })}>
            Thrown away
          </Button>
        </span>
      )}
    </li>
  )
}

function PutForm({ onKept }: { onKept: () => void }) {
  const { view, today } = useGardenContext()
  const put = useGardenWrite(benchEndpoints.put, { gardenId: view.garden.id }, 'On the bench.')
  return (
    <Form
      name="bench"
      layout="inline"
      className="bench-form"
      initialValues={{ count: 1 }}
      onFinish={(v: { taxonBotanical: string; count: number }) =>
        put.mutate({ ...v, since: today }, { onSuccess: onKept })
      }
    >
      <Form.Item name="taxonBotanical" rules={[{ required: true, message: 'Which plant?' }]}>
        <TaxonSelect label="Taxon" style={{ width: 220 }} />
      </Form.Item>
      <Form.Item name="count" rules={[{ required: true, message: 'How many?' }]}>
        <QuantityInput aria-label="How many" min={1} max={10_000} style={{ width: 80 }} />
      </Form.Item>
      <Button type="submit" loading={put.isPending}>
        Keep it
      </Button>
    </Form>
  )
}
