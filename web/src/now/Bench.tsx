import { benchEndpoints, type BenchView, type BodyOf, type KnownTaxon } from '@border/contract'
import { Form, InputNumber, Select } from 'antd'
import { useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useTaxa } from '../plants/queries.ts'
import { Answered } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import { PlantingForm } from '../plants/PlantingForm.tsx'
import { useBench } from './queries.ts'

/** Plants that wait for a place: pieces left over at a division, and what stands in pots. */
export function Bench() {
  const { view } = useGardenContext()
  const bench = useBench(view.garden.id)
  return (
    <section className="bench">
      <Answered of={[bench, useTaxa()]}>{(bench, taxa) => <OnBench bench={bench} taxa={taxa} />}</Answered>
    </section>
  )
}

function OnBench({ bench, taxa }: { bench: readonly BenchView[]; taxa: readonly KnownTaxon[] }) {
  const { view, isHead, isCrew, today } = useGardenContext()
  const [adding, setAdding] = useState(false)
  const [planting, setPlanting] = useState<BenchView | null>(null)
  const put = useGardenWrite(benchEndpoints.put, { gardenId: view.garden.id }, 'On the bench.')
  const gone = useGardenWrite(
    benchEndpoints.gone,
    ({ id }: { id: string } & BodyOf<typeof benchEndpoints.gone>) => ({
      gardenId: view.garden.id,
      benchId: id,
    }),
    ({ gone: how }) => `Off the bench: ${how}.`,
  )
  return (
    <>
      <div className="spread">
        <h2>On the bench</h2>
        {isCrew && !adding && (
          <Button size="small" onClick={() => setAdding(true)}>
            Put something on it
          </Button>
        )}
      </div>
      {bench.length === 0 && <p className="soft">Nothing waits for a place.</p>}
      <ul className="plain-list now-jobs">
        {bench.map((b) => (
          <li key={b.id}>
            <span>
              {b.count} <span className="taxon">{b.botanical}</span>
            </span>
            <small>
              since {shortDate(b.since)}
              {b.fromTag && `, divided from ${b.fromTag}`}
              {b.note && `; ${b.note}`}
            </small>
            {isCrew && (
              <span className="row">
                {isHead && (
                  <Button size="small" onClick={() => setPlanting(b)}>
                    Plant it
                  </Button>
                )}
                <Button size="small" onClick={() => gone.mutate({ id: b.id, on: today, gone: 'given away' })}>
                  Given away
                </Button>
                <Button
                  size="small"
                  onClick={() => gone.mutate({ id: b.id, on: today, gone: 'thrown away' })}
                >
                  Thrown away
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {adding && (
        <Form
          name="bench"
          layout="inline"
          className="bench-form"
          initialValues={{ count: 1 }}
          onFinish={(v: { taxonBotanical: string; count: number }) =>
            put.mutate({ ...v, since: today }, { onSuccess: () => setAdding(false) })
          }
        >
          <Form.Item name="taxonBotanical" rules={[{ required: true, message: 'Which plant?' }]}>
            <Select
              aria-label="Taxon"
              showSearch={{ optionFilterProp: 'label' }}
              options={taxa?.map((t) => ({ value: t.botanical, label: t.botanical }))}
              style={{ width: 220 }}
            />
          </Form.Item>
          <Form.Item name="count" rules={[{ required: true, message: 'How many?' }]}>
            <InputNumber aria-label="How many" min={1} max={10_000} style={{ width: 80 }} />
          </Form.Item>
          <Button type="submit" loading={put.isPending}>
            Keep it
          </Button>
        </Form>
      )}
      {planting && <PlantingForm bench={planting} onClose={() => setPlanting(null)} />}
    </>
  )
}
