import {
  gardenEndpoints,
  type ImportPreview,
  type ImportRequest,
  type PlantingView,
  type SavedGarden,
  type BodyOf,
} from '@border/contract'
import { counted, problemText, type FileProblem } from '@border/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { Alert, Form, Input, Tabs } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { PRACTICE, useAnswer } from '../api/answers.ts'
import { ask, write } from '../api/client.ts'
import { useGardens, useSignedIn } from '../api/session.ts'
import { errorText } from '../api/writes.ts'
import { announce } from '../frame/Announced.tsx'
import { Button } from '../frame/Button.tsx'
import { FileInput } from '../frame/FileInput.tsx'
import { Whole } from '../frame/Whole.tsx'
import { useSize } from '../frame/useSize.ts'
import { Answered } from '../frame/Answered.tsx'
import { shortDate } from '../frame/words.ts'
import { PlanDrawing } from '../plan/PlanDrawing.tsx'
import { FindTown } from './FindTown.tsx'
import './gardens.css'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** A garden comes in from files, or starts empty and is drawn by hand. */
export function NewGardenScreen() {
  const session = useSignedIn()
  const { data: gardens } = useGardens()
  if (!session.person.leads)
    return (
      <Whole title="No garden yet">
        <p>
          You do not belong to a garden yet. Whoever leads {session.person.practiceName} can add you to one
          under Set-up.
        </p>
      </Whole>
    )
  return (
    <main className="new-garden">
      <div className="spread">
        <h1>{gardens?.length === 0 ? 'Your first garden' : 'Add a garden'}</h1>
        {gardens && gardens.length > 0 && <Link to="/">Back to the gardens</Link>}
      </div>
      <Tabs
        items={[
          { key: 'files', label: 'From files', children: <FromFiles /> },
          { key: 'hand', label: 'By hand', children: <ByHand /> },
        ]}
      />
      <TakenOut />
    </main>
  )
}

/** Gardens that were taken out of the practice, to be brought back. */
function TakenOut() {
  const client = useQueryClient()
  const withdrawn = useAnswer(gardenEndpoints.listWithdrawn, {})
  const bringBack = useMutation({
    mutationFn: (id: string) => write(gardenEndpoints.restore, { params: { withdrawnId: id } }),
    onSuccess: () => client.invalidateQueries({ queryKey: PRACTICE }),
  })
  return (
    <Answered of={[withdrawn]}>
      {(gardens) =>
        gardens.length > 0 && (
          <section className="stack">
            <h2>Taken out</h2>
            {bringBack.error && <Alert type="error" title={errorText(bringBack.error)} />}
            <ul className="plain-list">
              {gardens.map((g) => (
                <li key={g.id} className="spread">
                  <span>
                    {g.name}, taken out {shortDate(g.withdrawnOn)}
                  </span>
                  <Button size="small" loading={bringBack.isPending} onClick={() => bringBack.mutate(g.id)}>
                    Bring it back
                  </Button>
                </li>
              ))}
            </ul>
          </section>
        )
      }
    </Answered>
  )
}

function useOpenGarden() {
  const client = useQueryClient()
  const navigate = useNavigate()
  return async ({ gardenId, climate }: SavedGarden, screen: string) => {
    await client.invalidateQueries({ queryKey: PRACTICE })
    announce.told(climate)
    void navigate(`/g/${gardenId}/${screen}`)
  }
}

/** Which of the three files a file is, by its name. */
function roleOf(name: string): keyof ImportRequest | undefined {
  const lower = name.toLowerCase()
  if (lower.endsWith('.geojson') || lower.endsWith('.json')) return 'plan'
  if (!lower.endsWith('.csv')) return undefined
  return lower.includes('weather') ? 'weather' : 'plantings'
}

function FromFiles() {
  const { choose, failure, problems, preview, save, busy } = useImport()
  return (
    <div className="stack">
      <p>
        A garden is a plan (<code>plan.geojson</code>), what grows in it (<code>plantings.csv</code>) and, if
        you have one, a daily weather record (<code>weather.csv</code>). The formats are in docs/formats.md,
        with an example in examples/walled-court.
      </p>
      <label className="file-choice">
        <FileInput
          multiple
          accept=".geojson,.json,.csv"
          aria-label="Garden files"
          onFiles={(chosen) => void choose(chosen)}
        />
        <span>Choose the files together</span>
      </label>
      {failure && <Alert type="error" title={failure} />}
      {problems.length > 0 && <Problems problems={problems} />}
      {preview && <Preview preview={preview} busy={busy} onSave={save} />}
    </div>
  )
}

/** Files that were chosen, what they would make, and saving it. */
function useImport() {
  const open = useOpenGarden()
  const [files, setFiles] = useState<Partial<ImportRequest>>({})
  const [preview, setPreview] = useState<ImportPreview>()
  const [problems, setProblems] = useState<FileProblem[]>([])
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const choose = async (list: readonly File[]) => {
    const read: Partial<ImportRequest> = {}
    for (const file of list) {
      const role = roleOf(file.name)
      if (role) read[role] = await file.text()
    }
    setFiles(read)
    setPreview(undefined)
    setProblems([])
    setFailure(read.plan ? '' : 'Choose the plan, plan.geojson, with any of the others.')
    const { plan } = read
    if (!plan) return
    await attempt(async () => {
      const result = await ask(gardenEndpoints.previewImport, { body: { ...read, plan } })
      if (result.ok) setPreview(result.preview)
      else setProblems(result.problems)
    })
  }
  const attempt = async (work: () => Promise<void>) => {
    setBusy(true)
    try {
      await work()
    } catch (error) {
      setFailure(errorText(error))
    } finally {
      setBusy(false)
    }
  }
  const { plan } = files
  const save = () =>
    plan &&
    void attempt(async () => {
      await open(await write(gardenEndpoints.import, { body: { ...files, plan } }), 'light')
    })
  return { choose, failure, problems, preview, save, busy }
}

const Problems = ({ problems }: { problems: readonly FileProblem[] }) => (
  <Alert
    type="error"
    title={`Nothing can be saved yet: ${counted(problems.length, 'thing')} to put right`}
    description={
      <ul className="plain-list">
        {problems.map((p) => (
          <li key={problemText(p)}>{problemText(p)}</li>
        ))}
      </ul>
    }
  />
)

function Preview({ preview, busy, onSave }: { preview: ImportPreview; busy: boolean; onSave: () => void }) {
  return (
    <section className="stack">
      <h2>{preview.gardenName}</h2>
      <p>
        {Object.entries(preview.counts)
          .map(([kind, n]) => counted(n, kind))
          .join(', ')}
        ; {counted(preview.plantings.length, 'planting')};{' '}
        {preview.weatherDays > 0
          ? `${counted(preview.weatherDays, 'day')} of weather`
          : 'no weather record: until there is one, or your own frost dates, dates hang on weather made up from the usual years of the towns about it'}
        . Nothing is saved yet.
      </p>
      <PreviewPlan preview={preview} />
      <div>
        <Button look="primary" loading={busy} onClick={onSave}>
          Save this garden
        </Button>
      </div>
    </section>
  )
}

/** The plan as it would be saved, plantings in their places. */
function PreviewPlan({ preview }: { preview: ImportPreview }) {
  const [ref, { width }] = useSize()
  const features = preview.features.map((f, i) => ({ ...f, id: `feature ${i}` }))
  const plantings = preview.plantings.flatMap((p): PlantingView[] => {
    const place = features.find((f) => f.name.toLowerCase() === p.place.toLowerCase())
    const [x, y] = place?.geometry.type === 'Point' ? place.geometry.coordinates : [p.x, p.y]
    if (!place || x === undefined || y === undefined) return []
    return [
      {
        id: p.tag,
        tag: p.tag,
        taxon: p.taxon,
        plantedOn: p.plantedOn,
        plantedKnown: 'day',
        plantedCount: p.count,
        livingCount: p.count,
        source: 'bought',
        role: null,
        colourWish: null,
        fromTag: null,
        placeId: place.id,
        x,
        y,
        radiusM: null,
        outline: null,
        inPlaceSince: p.plantedOn,
      },
    ]
  })
  return (
    <div className="new-plan" ref={ref}>
      {width > 0 && (
        <PlanDrawing
          features={features}
          plantings={plantings}
          on={preview.today}
          northDeg={preview.northDeg}
          width={width}
          height={420}
          label={`Plan of ${preview.gardenName}`}
        />
      )}
    </div>
  )
}

function ByHand() {
  const open = useOpenGarden()
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const save = async (body: BodyOf<typeof gardenEndpoints.create>) => {
    setBusy(true)
    setFailure('')
    try {
      await open(await write(gardenEndpoints.create, { body }), 'plan')
    } catch (error) {
      setFailure(errorText(error))
    } finally {
      setBusy(false)
    }
  }
  const [form] = Form.useForm<BodyOf<typeof gardenEndpoints.create>>()
  const { timeZone } = Intl.DateTimeFormat().resolvedOptions()
  return (
    <Form
      form={form}
      name="garden"
      layout="vertical"
      requiredMark={false}
      className="by-hand"
      initialValues={{ timeZone: timeZone === 'UTC' ? 'Europe/London' : timeZone, northDeg: 0 }}
      onFinish={(v: BodyOf<typeof gardenEndpoints.create>) => void save(v)}
    >
      <p>The sun is worked out from where the garden lies. Next you draw what casts shade and the beds.</p>
      <Form.Item
        name="name"
        label="Name of the garden"
        rules={[{ required: true, message: 'Name the garden' }]}
      >
        <Input maxLength={120} />
      </Form.Item>
      <Form.Item
        label="The nearest town, or coordinates"
        htmlFor="town"
        extra="It fills in the three fields below; put them right where you know better."
      >
        <FindTown
          id="town"
          onFind={({ latitude, longitude, timeZone }) =>
            form.setFieldsValue({ latitude, longitude, timeZone })
          }
        />
      </Form.Item>
      <div className="row">
        <Form.Item
          name="latitude"
          label="Latitude"
          rules={[{ required: true, message: 'North is positive' }]}
        >
          <QuantityInput min={-90} max={90} step={0.01} suffix="°" style={{ width: 150 }} />
        </Form.Item>
        <Form.Item
          name="longitude"
          label="Longitude"
          rules={[{ required: true, message: 'East is positive' }]}
        >
          <QuantityInput min={-180} max={180} step={0.01} suffix="°" style={{ width: 150 }} />
        </Form.Item>
      </div>
      <Form.Item
        name="timeZone"
        label="Time zone"
        rules={[{ required: true, message: 'Like Europe/London' }]}
      >
        <Input />
      </Form.Item>
      <Form.Item
        name="northDeg"
        label="North on the plan, clockwise from up"
        extra="0 when the plan is drawn with north up."
      >
        <QuantityInput min={-360} max={360} suffix="°" style={{ width: 150 }} />
      </Form.Item>
      {failure && <Alert type="error" title={failure} />}
      <Button look="primary" type="submit" loading={busy}>
        Start the plan
      </Button>
    </Form>
  )
}
