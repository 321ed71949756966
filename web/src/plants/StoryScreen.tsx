import {
  plantingEndpoints,
  plantingSeen,
  recordEndpoints,
  walkEndpoints,
  type PlantingStory,
  type StoryEntry,
} from '@border/contract'
import {
  capitalised,
  hardyWords,
  colourFollowsSoil,
  colourOutlook,
  dayMonthYear,
  isUnknown,
  plantedWords,
  lightRange,
  moistureWord,
  placeOf,
  quarterHours,
  treatments,
  yearOf,
  type Taxon,
  type TreatmentKind,
} from '@border/core'
import { Form, Input, Popconfirm, Select } from 'antd'
import { group } from 'd3-array'
import dayjs, { type Dayjs } from 'dayjs'
import { useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { photoAddress } from '../record/queries.ts'
import { useAssessment } from '../verdicts/queries.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { shortDate, shortDayMonth } from '../frame/words.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { withPlanting } from '../frame/address.ts'
import { useStory } from './queries.ts'
import { PastLook } from './PastLook.tsx'
import { PastWork } from '../season/PastWork.tsx'
import { NameIt } from './ToBeNamed.tsx'
import { PlantingForm } from './PlantingForm.tsx'
import './plants.css'
import { KindName } from '../frame/KindName.tsx'
import { DayPicker } from '../units/DayPicker.tsx'

/** A planting's history as a story, from planting to now. */
export function StoryScreen() {
  const { plantingId } = useParams() as { plantingId: string }
  const { view } = useGardenContext()
  return (
    <Answered of={[useStory(view.garden.id, plantingId)]} title="A planting">
      {(story) => <PlantingStoryOf story={story} />}
    </Answered>
  )
}

function PlantingStoryOf({ story }: { story: PlantingStory }) {
  const { view, isCrew, isHead } = useGardenContext()
  const { search } = useLocation()
  const { planting } = story
  const place = view.features.find((f) => f.id === planting.placeId)
  return (
    <>
      <ScreenHead
        title={<KindName of={planting.taxon} />}
        lead={
          <>
            {isUnknown(planting.taxon) ? (
              'Nobody knows yet what it is'
            ) : (
              <Link
                to={{ pathname: `../taxon/${encodeURIComponent(planting.taxon.botanical)}`, search }}
                relative="path"
              >
                All about this kind
              </Link>
            )}
            . Tag {planting.tag}.{' '}
            <b>
              {planting.livingCount === 0
                ? 'None living'
                : `${planting.livingCount} of ${planting.plantedCount} living`}
            </b>{' '}
            in {place?.name}
            {planting.inPlaceSince !== planting.plantedOn && ` since ${dayMonthYear(planting.inPlaceSince)}`}.
          </>
        }
      >
        <Link to={{ pathname: '..', search }} relative="path">
          All plantings
        </Link>
      </ScreenHead>
      <div className="screen-split">
        <div className="screen-body" tabIndex={0} role="region" aria-label="Its story">
          <Story story={story} gardenId={view.garden.id} />
        </div>
        <aside className="stack" aria-label="About this planting">
          {isUnknown(planting.taxon) && <NameIt planting={planting} />}
          <Facts story={story} />
          <Pictures story={story} />
          {isCrew && planting.livingCount === 0 && (
            <CameBack gardenId={view.garden.id} plantingId={planting.id} />
          )}
          {isCrew && <PastLook key={planting.id} planting={planting} />}
          {isCrew && planting.livingCount > 0 && (
            <details>
              <summary>
                <h2>Past work</h2>
              </summary>
              <PastWork plantingId={planting.id} />
            </details>
          )}
          {isCrew && <TreatmentForm gardenId={view.garden.id} plantingId={planting.id} />}
          {isCrew && <NoteForm gardenId={view.garden.id} plantingId={planting.id} />}
          {isHead && <PutRight planting={planting} />}
        </aside>
      </div>
    </>
  )
}

const kindWords: Record<StoryEntry['kind'], string> = {
  planted: 'planted',
  observed: 'seen',
  decided: 'decided',
  job: 'done',
  moved: 'moved',
  counted: 'counted',
  note: 'note',
  lost: 'lost',
  trial: 'trial',
  treated: 'cut',
}

/** Entries under their years; under how well it is known what has the day of the planting, where that is none to show. */
function chaptersOf({ planting, story }: PlantingStory) {
  const isDated = (e: StoryEntry) =>
    planting.plantedKnown === 'day' ||
    e.on !== planting.plantedOn ||
    (e.kind !== 'planted' && e.kind !== 'note')
  const undated = story.filter((e) => !isDated(e))
  const dated = group(story.filter(isDated), (e) => yearOf(e.on))
  return [
    ...(undated.length > 0
      ? [{ title: capitalised(plantedWords(planting)), isDated: false, entries: undated }]
      : []),
    ...[...dated].map(([year, entries]) => ({ title: year, isDated: true, entries })),
  ]
}

function Story({ story, gardenId }: { story: PlantingStory; gardenId: string }) {
  const takeBack = useGardenWrite(
    walkEndpoints.withdrawLook,
    ({ lookId }: { lookId: string }) => ({ gardenId, observationId: lookId }),
    'Taken back. What hangs on it is worked out without it.',
  )
  return (
    <ol className="story">
      {chaptersOf(story).map(({ title, isDated, entries }) => (
        <li key={title}>
          <h2>{title}</h2>
          <ol>
            {entries.map((e, i) => (
              <li key={i} className={`story-${e.kind}`}>
                <span className="story-when">{isDated && shortDayMonth(e.on)}</span>
                <span className="story-kind">{kindWords[e.kind]}</span>
                <span>
                  {e.says} {e.by && <small>{e.by}</small>}
                  {e.lookId && (
                    <Popconfirm
                      title="Take this look back?"
                      description="For one noted by mistake, or twice. It counts no longer, in the record or the verdicts."
                      okText="Take it back"
                      cancelText="Cancel"
                      onConfirm={() => takeBack.mutate({ lookId: e.lookId! })}
                    >
                      <Button
                        size="small"
                        look="text"
                        className="story-back"
                        aria-label={`Take back the look of ${shortDate(e.on)}`}
                      >
                        take back
                      </Button>
                    </Popconfirm>
                  )}
                </span>
              </li>
            ))}
          </ol>
        </li>
      ))}
    </ol>
  )
}

function Facts({ story }: { story: PlantingStory }) {
  const { view, asOf } = useGardenContext()
  const { search } = useLocation()
  const { data } = useAssessment(view.garden.id, asOf)
  const { planting, offspring } = story
  const { taxon } = planting
  const assessment = data?.assessments.find((a) => a.plantingId === planting.id)
  const outlook = useColourOutlook(planting)
  const facts: [string, React.ReactNode][] = [
    ['Planted', `${plantedWords(planting)}, ${planting.source}`],
    ...(planting.fromTag ? [['Came from', planting.fromTag] as [string, string]] : []),
    ...(offspring.length > 0 ? [['Gave', offspring.join(', ')] as [string, string]] : []),
    ...(planting.role ? [['Role', planting.role] as [string, string]] : []),
    ...(outlook ? [[`Flowers wished ${planting.colourWish}`, outlook.says] as [string, string]] : []),
    ...(isUnknown(taxon) ? [] : kindFacts(taxon, assessment?.now.total)),
  ]
  return (
    <section>
      <h2>The planting</h2>
      <dl className="facts">
        {facts.map(([term, value]) => (
          <div key={term}>
            <dt>{term}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {assessment && (
        <p>
          Proposed:{' '}
          <Link
            to={{ pathname: '../../verdicts', search: withPlanting(search, planting.id) }}
            relative="path"
          >
            {assessment.verdict.action}
          </Link>
        </p>
      )}
    </section>
  )
}

/** What its kind is known to want, and the hours of sun that it has. */
function kindFacts(taxon: Taxon, hours: number | undefined): [string, React.ReactNode][] {
  const moisture =
    taxon.moistureMin === taxon.moistureMax
      ? moistureWord(taxon.moistureMin)
      : `${moistureWord(taxon.moistureMin)} to ${moistureWord(taxon.moistureMax)}`
  return [
    ['Sun it likes', lightRange(taxon)],
    ...(hours === undefined ? [] : [['Sun it has', quarterHours(hours)] as [string, string]]),
    ['Ground it likes', moisture],
    ['Grows to', `${taxon.heightM} m by ${taxon.spreadM} m`],
    ['Hardy to about', hardyWords(taxon.hardyToC)],
    ['Moved', taxon.moveWhen],
  ]
}

/** How a wish for a colour of its flowers stands where it is planted. */
function useColourOutlook({ placeId, colourWish, taxon }: PlantingStory['planting']) {
  const { standing } = useGardenContext()
  const feature = standing.find((f) => f.id === placeId)
  const place = feature && placeOf(feature)
  return colourWish && place && colourFollowsSoil(taxon) ? colourOutlook(colourWish, place) : undefined
}

function Pictures({ story }: { story: PlantingStory }) {
  const { view } = useGardenContext()
  if (story.photos.length === 0) return null
  return (
    <section>
      <h2>Photos</h2>
      <ul className="story-photos">
        {story.photos.map((p) => (
          <li key={p.id}>
            <a href={photoAddress(view.garden.id, p.id)} target="_blank" rel="noreferrer">
              <img
                src={photoAddress(view.garden.id, p.id, 'small')}
                alt={`${story.planting.taxon.botanical}, ${shortDate(p.takenOn)}`}
                loading="lazy"
              />
            </a>
            <small>{shortDate(p.takenOn)}</small>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Plants that were written off do come back: the striking off is undone, and both words stay in the story. */
function CameBack({ gardenId, plantingId }: { gardenId: string; plantingId: string }) {
  const { today } = useGardenContext()
  const found = useGardenWrite(
    recordEndpoints.found,
    { gardenId, plantingId },
    'It is in the garden again, one living until it is counted.',
  )
  return (
    <Button loading={found.isPending} onClick={() => found.mutate({ on: today })}>
      It came back after all
    </Button>
  )
}

/** What was entered wrongly is put right; what was never there comes out, and can come back. */
function PutRight({ planting }: { planting: PlantingStory['planting'] }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const navigate = useNavigate()
  const [isOpen, setOpen] = useState(false)
  const { tag } = planting
  const gardenId = view.garden.id
  const restore = useGardenWrite(
    plantingEndpoints.restore,
    { gardenId, plantingId: planting.id },
    `${tag} is in the garden again.`,
  )
  const takeOut = useGardenWrite(
    plantingEndpoints.withdraw,
    { gardenId },
    () => (
      <>
        {tag} is taken out.{' '}
        <Button size="small" onClick={() => restore.mutate({})}>
          Bring it back
        </Button>
      </>
    ),
    () => [plantingSeen(planting)],
  )
  // Its story is gone with it, and this form with the story: what comes after must not wait for either.
  const goOut = () =>
    takeOut.mutateAsync({ plantingIds: [planting.id] }).then(
      () => navigate({ pathname: '..', search }, { relative: 'path' }),
      () => undefined,
    )
  return (
    <section>
      <h2>Entered wrongly?</h2>
      <div className="row">
        <Button onClick={() => setOpen(true)}>Put it right</Button>
        <Popconfirm
          title={`Take ${tag} out of the garden?`}
          description="For a planting that was never there. One that died or went is written off under Walk, and keeps its story."
          okText="Take it out"
          cancelText="Cancel"
          onConfirm={() => void goOut()}
        >
          <Button look="text" danger loading={takeOut.isPending}>
            It was never there
          </Button>
        </Popconfirm>
      </div>
      {isOpen && <PlantingForm planting={planting} onClose={() => setOpen(false)} />}
    </section>
  )
}

/** A cut or deadheading for the sake of bloom: the record compares it with fellows left alone. */
function TreatmentForm({ gardenId, plantingId }: { gardenId: string; plantingId: string }) {
  const { today } = useGardenContext()
  const [form] = Form.useForm<{ on: Dayjs; what: TreatmentKind }>()
  const add = useGardenWrite(
    recordEndpoints.treat,
    { gardenId, plantingId },
    'Kept. Its bloom is compared with the like left alone.',
  )
  return (
    <Form
      name="treatment"
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={{ on: dayjs(today), what: treatments[0] }}
      onFinish={({ on, what }) => add.mutate({ on: on.format('YYYY-MM-DD'), what })}
    >
      <h2>Cut for bloom</h2>
      <div className="row treatment-row">
        <Form.Item name="what" noStyle>
          <Select aria-label="What was done" options={treatments.map((t) => ({ value: t, label: t }))} />
        </Form.Item>
        <Form.Item name="on" noStyle>
          <DayPicker aria-label="Day it was done" maxDate={dayjs(today)} allowClear={false} />
        </Form.Item>
        <Button type="submit" loading={add.isPending}>
          Record it
        </Button>
      </div>
    </Form>
  )
}

function NoteForm({ gardenId, plantingId }: { gardenId: string; plantingId: string }) {
  const { today } = useGardenContext()
  const [form] = Form.useForm<{ on: Dayjs; note: string }>()
  const add = useGardenWrite(plantingEndpoints.note, { gardenId, plantingId }, 'Note kept.')
  return (
    <Form
      name="note"
      form={form}
      layout="vertical"
      requiredMark={false}
      initialValues={{ on: dayjs(today) }}
      onFinish={({ on, note }) =>
        add.mutate({ on: on.format('YYYY-MM-DD'), note }, { onSuccess: () => form.resetFields() })
      }
    >
      <h2>Add a note</h2>
      <Form.Item
        name="note"
        label="What you saw or did"
        rules={[{ required: true, message: 'Write a word or two' }]}
      >
        <Input.TextArea rows={3} maxLength={2000} />
      </Form.Item>
      <div className="row">
        <Form.Item name="on" noStyle>
          <DayPicker aria-label="Day" maxDate={dayjs(today)} allowClear={false} />
        </Form.Item>
        <Button type="submit" loading={add.isPending}>
          Keep the note
        </Button>
      </div>
    </Form>
  )
}
