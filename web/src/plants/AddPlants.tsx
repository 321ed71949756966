import { plantingEndpoints, type FeatureView, type PlantingRequest } from '@border/contract'
import {
  counted,
  depths,
  isPlace,
  middleOf,
  nextTags,
  plantedWords,
  readArmful,
  readArmfuls,
  readPlanted,
  ringOf,
  roughSpot,
  sides,
  taxonSearch,
  UNKNOWN,
  type ArmfulLine,
  type Depth,
  type Planted,
  type SideOf,
} from '@border/core'
import { Alert, Input, Modal } from 'antd'
import { useMemo, useState } from 'react'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Segments } from '../frame/Segments.tsx'
import { useTaxa } from './queries.ts'
import { NoSuchPlant, useNewKind } from './NewKind.tsx'
import { TaxonSelect } from './TaxonSelect.tsx'
import { usePlantingPhoto } from './usePlantingPhoto.ts'
import { PhotoButton } from '../walk/fields.tsx'
import '../draw/draw.css'
import '../walk/walk.css'
import './plants.css'
import { KindName } from '../frame/KindName.tsx'

interface Where {
  placeId: string
  depth: Depth
  side: SideOf
}

/** Plants by the armful: typed one after another, or a whole list pasted; the dialog stays open until all are in. */
export function AddPlants({ onClose, onOne }: { onClose: () => void; onOne: () => void }) {
  const { standing } = useGardenContext()
  const places = standing.filter(isPlace)
  const [how, setHow] = useState<'one by one' | 'a list'>('one by one')
  const [where, setWhere] = useState<Where>({
    placeId: places[0]?.id ?? '',
    depth: 'middle',
    side: 'middle',
  })
  const [when, setWhen] = useState('')
  return (
    <Modal open title="Add plants" onCancel={onClose} footer={null} width={720}>
      {places.length === 0 ? (
        <p>There is no bed or pot to plant in yet. Draw one under Plan first.</p>
      ) : (
        <div className="stack">
          <Segments label="How" value={how} onChange={setHow} options={['one by one', 'a list']} />
          <WhereAndWhen {...{ places, where, setWhere, when, setWhen }} />
          {how === 'one by one' ? <Typed where={where} when={when} /> : <Pasted where={where} when={when} />}
          <div className="row">
            <Button onClick={onClose}>Done</Button>
            <Button look="link" onClick={onOne}>
              One with everything said, or its drift drawn
            </Button>
          </div>
        </div>
      )}
    </Modal>
  )
}

interface WhereProps {
  places: readonly FeatureView[]
  where: Where
  setWhere: (where: Where) => void
  when: string
  setWhen: (when: string) => void
}

/** In which place, roughly where in it, and since when: for all that are typed until it is said otherwise. */
function WhereAndWhen({ places, where, setWhere, when, setWhen }: WhereProps) {
  const { today } = useGardenContext()
  const place = places.find((p) => p.id === where.placeId)
  const said = when.trim() === '' || readPlanted(when, today) !== undefined
  return (
    <div className="form-grid">
      <label className="draw-field">
        <span>Place</span>
        <Choose
          label="Place"
          value={where.placeId}
          onChange={(placeId) => setWhere({ ...where, placeId })}
          options={places.map((p) => ({ value: p.id, label: p.name }))}
        />
      </label>
      <label className="draw-field">
        <span>Planted</span>
        <Input
          aria-label="Planted"
          value={when}
          placeholder="nobody knows; or 2024-05-01, 2019, before 2015"
          status={said ? '' : 'error'}
          onChange={(e) => setWhen(e.target.value)}
        />
      </label>
      {place?.kind === 'bed' && (
        <>
          <div className="draw-field">
            <span>How deep in the bed</span>
            <Segments<Depth>
              label="How deep in the bed"
              value={where.depth}
              options={depths}
              onChange={(depth) => setWhere({ ...where, depth })}
            />
          </div>
          <div className="draw-field">
            <span>Along it, as you stand before it</span>
            <Segments<SideOf>
              label="Along it"
              value={where.side}
              options={sides}
              onChange={(side) => setWhere({ ...where, side })}
            />
          </div>
        </>
      )}
    </div>
  )
}

/** What is entered, with all that is said of it; undefined while the day cannot be read. */
function useEntering(where: Where, when: string) {
  const { view, today, standing } = useGardenContext()
  const place = standing.find((p) => p.id === where.placeId)
  const planted: Planted | undefined = readPlanted(when.trim() || 'unknown', today)
  const add = useGardenWrite(
    plantingEndpoints.add,
    { gardenId: view.garden.id },
    ({ plantings }) => `${counted(plantings.length, 'planting')} entered.`,
  )
  /** @param nth of those that are entered in one place together */
  const requests = (of: readonly { count: number; botanical: string }[], after: readonly string[]) => {
    if (!place || !planted) return []
    const tags = nextTags([...view.plantings.map((p) => p.tag), ...after], of.length)
    const here = view.plantings.filter((p) => p.placeId === place.id).length
    return of.map(({ count, botanical }, i): PlantingRequest => {
      const [x, y] = spotIn(place, where, here + after.length + i)
      return {
        tag: tags[i]!,
        taxonBotanical: botanical,
        placeId: place.id,
        count,
        ...planted,
        source: 'bought',
        x,
        y,
      }
    })
  }
  return { add, requests, planted, place }
}

/** From where a bed is looked at: as said, else from the south of the plan. */
function spotIn(place: FeatureView, { depth, side }: Where, nth: number): readonly [number, number] {
  if (place.kind !== 'bed') return middleOf(place.geometry)
  const [from] = (place.properties.viewedFrom as number[] | undefined) ?? []
  const [x, y] = roughSpot(ringOf(place.geometry), depth, side, from ?? 180, nth)
  return [Math.round(x * 100) / 100, Math.round(y * 100) / 100]
}

interface Entered {
  id: string
  says: string
}

/** “5 conef” and Enter, and the next. */
function Typed({ where, when }: { where: Where; when: string }) {
  const { data: taxa } = useTaxa()
  const search = useMemo(() => taxa && taxonSearch(taxa), [taxa])
  const [text, setText] = useState('')
  const [entered, setEntered] = useState<readonly Entered[]>([])
  const [tags, setTags] = useState<readonly string[]>([])
  const { add, requests, planted, place } = useEntering(where, when)
  const line = search ? readArmful(text, search) : undefined
  const enter = (botanical: string | undefined, note?: string) => {
    if (!line || !botanical || add.isPending) return
    const [request] = requests([{ count: line.count, botanical }], tags)
    if (!request) return
    add.mutate(
      { plantings: [{ ...request, ...(note && { note }) }] },
      {
        onSuccess: ({ plantingIds }) => {
          const says = `${request.tag}: ${request.count} ${botanical} in ${place!.name}, planted ${plantedWords(planted!)}`
          setEntered((before) => [{ id: plantingIds[0]!, says }, ...before])
          setTags((before) => [...before, request.tag])
          setText('')
        },
      },
    )
  }
  return (
    <section aria-label="One by one" className="stack">
      <Input
        aria-label="How many of what"
        autoFocus
        size="large"
        value={text}
        placeholder="5 conef"
        onChange={(e) => setText(e.target.value)}
        onPressEnter={() => enter(line?.found[0]?.botanical)}
      />
      {line && line.found.length === 0 && <NotFound line={line} onEnter={enter} />}
      {line && line.found.length > 0 && (
        <ul className="armful" aria-label="It may be">
          {line.found.map((t, i) => (
            <li key={t.botanical}>
              <Button size="small" look={i === 0 ? 'primary' : 'default'} onClick={() => enter(t.botanical)}>
                {line.count} <KindName of={t} />
                {i === 0 && ' ⏎'}
              </Button>
            </li>
          ))}
        </ul>
      )}
      {!planted && (
        <Alert type="error" title="The day it was planted is none: leave it empty, or write 2019." />
      )}
      <EnteredList entered={entered} onOut={(id) => setEntered(entered.filter((e) => e.id !== id))} />
    </section>
  )
}

interface NotFoundProps {
  line: ArmfulLine
  onEnter: (botanical: string, note?: string) => void
}

/** What to do with a name that nothing bears: make it a kind, or enter the plant without a name. */
function NotFound({ line, onEnter }: NotFoundProps) {
  const kind = useNewKind(onEnter)
  return (
    <div className="stack">
      <p className="soft">Nothing is called “{line.name}”, not even with a letter wrong.</p>
      <div className="row">
        <NoSuchPlant named={line.name} onMake={kind.make} />
        <Button
          size="small"
          onClick={() => onEnter(UNKNOWN.botanical, `Called “${line.name}” when it was entered.`)}
        >
          Enter {line.count}, to be named later
        </Button>
      </div>
      {kind.dialog}
    </div>
  )
}

function EnteredList({ entered, onOut }: { entered: readonly Entered[]; onOut: (id: string) => void }) {
  const { view } = useGardenContext()
  const out = useGardenWrite(
    plantingEndpoints.withdraw,
    { gardenId: view.garden.id },
    'Taken out again.',
    () => [],
  )
  const take = usePlantingPhoto()
  if (entered.length === 0) return null
  return (
    <ul className="changes" aria-label="Entered">
      {entered.map((e) => (
        <li key={e.id}>
          {e.says}{' '}
          <Button
            size="small"
            look="text"
            onClick={() => out.mutate({ plantingIds: [e.id] }, { onSuccess: () => onOut(e.id) })}
          >
            Undo
          </Button>
          <PhotoButton label="Take a photo" onFile={(file) => void take(e.id, file)} />
        </li>
      ))}
    </ul>
  )
}

interface Row {
  line: ArmfulLine
  count: number
  botanical: string | undefined
  isIn: boolean
}

/** A list from a spreadsheet or a receipt, matched line by line; what is unsure is shown to be looked at. */
function Pasted({ where, when }: { where: Where; when: string }) {
  const { data: taxa } = useTaxa()
  const search = useMemo(() => taxa && taxonSearch(taxa), [taxa])
  const [text, setText] = useState('')
  const [rows, setRows] = useState<readonly Row[]>([])
  const { add, requests, planted } = useEntering(where, when)
  const read = (pasted: string) => {
    setText(pasted)
    const lines = search ? readArmfuls(pasted, search) : []
    setRows(
      lines.map((line) => ({
        line,
        count: line.count,
        botanical: line.found[0]?.botanical,
        isIn: line.found.length > 0,
      })),
    )
  }
  const put = (i: number, change: Partial<Row>) => setRows(rows.with(i, { ...rows[i]!, ...change }))
  const chosen = rows.filter((r) => r.isIn && r.botanical)
  const unsure = rows.filter((r) => r.isIn && !r.line.isSure).length
  return (
    <section aria-label="A list" className="stack">
      <Input.TextArea
        aria-label="The list"
        rows={4}
        value={text}
        placeholder={'5 coneflower\nhosta x3\n12 Lavandula angustifolia 9 cm'}
        onChange={(e) => read(e.target.value)}
      />
      {rows.length > 0 && (
        <table className="plain-table" aria-label="As it was read">
          <thead>
            <tr>
              <th />
              <th>As written</th>
              <th>How many</th>
              <th>What</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r, i) => (
              <tr key={`${i} ${r.line.text}`} className={r.line.isSure ? undefined : 'armful-unsure'}>
                <td>
                  <input
                    type="checkbox"
                    aria-label={`Enter ${r.line.text}`}
                    checked={r.isIn}
                    onChange={(e) => put(i, { isIn: e.target.checked })}
                  />
                </td>
                <td>{r.line.text}</td>
                <td>
                  <input
                    type="number"
                    aria-label={`How many of ${r.line.text}`}
                    min={1}
                    max={10_000}
                    value={r.count}
                    onChange={(e) => put(i, { count: Math.max(1, Number(e.target.value) || 1) })}
                  />
                </td>
                <td>
                  <TaxonSelect
                    orUnknown
                    size="small"
                    label={`What ${r.line.text} is`}
                    value={r.botanical}
                    style={{ width: 270 }}
                    onChange={(botanical) => put(i, { botanical, isIn: true })}
                  />
                  {!r.line.isSure && (
                    <small>{r.line.found.length === 0 ? 'not found' : 'look: not sure'}</small>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {rows.length > 0 && (
        <Button
          look="primary"
          disabled={chosen.length === 0 || !planted}
          loading={add.isPending}
          onClick={() =>
            add.mutate(
              {
                plantings: requests(
                  chosen.map((r) => ({ count: r.count, botanical: r.botanical! })),
                  [],
                ),
              },
              { onSuccess: () => read('') },
            )
          }
        >
          Enter {counted(chosen.length, 'planting')}
          {unsure > 0 && `, ${unsure} of them unsure`}
        </Button>
      )}
    </section>
  )
}
