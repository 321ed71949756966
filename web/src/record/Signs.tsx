import { recordEndpoints, type DiagnosisView, type LikelihoodView } from '@border/contract'
import { counted, dayMonthYear, listed, signCauses, signWords, type SignCause } from '@border/core'
import { Select, Slider } from 'antd'
import { useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useGardenWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Answered } from '../frame/Answered.tsx'
import { useDiagnosis, useLikelihoods } from './queries.ts'
import { DiagnosisPanel } from './DiagnosisPanel.tsx'
import { KindName } from '../frame/KindName.tsx'

/** What this season's signs say of places and plantings, and the table they are read by. */
export function Signs() {
  const { view } = useGardenContext()
  return (
    <Answered of={[useDiagnosis(view.garden.id)]}>{(diagnosed) => <Diagnosed data={diagnosed} />}</Answered>
  )
}

function Diagnosed({ data }: { data: DiagnosisView }) {
  const [chosen, setChosen] = useState<string>()
  const failing = data.diagnoses
    .filter((d) => d.failing)
    .sort((a, b) => (b.causes[0]?.share ?? 0) - (a.causes[0]?.share ?? 0))
  const diagnosis = data.diagnoses.find((d) => d.plantingId === chosen) ?? failing[0]
  return (
    <div className="screen-split">
      <div className="screen-body stack">
        <Suspected data={data} />
        <section>
          <h2>In trouble</h2>
          <p className="soft">
            {counted(failing.length, 'planting')} of {data.diagnoses.length} looked at since{' '}
            {dayMonthYear(data.since)}. What is at rest or only settling in is not among them.
          </p>
          <ul className="signs-list">
            {failing.map((d) => (
              <Row
                key={d.plantingId}
                d={d}
                chosen={d === diagnosis}
                onChoose={() => setChosen(d.plantingId)}
              />
            ))}
          </ul>
        </section>
        <Table />
      </div>
      <aside className="stack" aria-label="About the planting chosen" tabIndex={0}>
        {diagnosis ? (
          <>
            <PlantingName plantingId={diagnosis.plantingId} />
            <DiagnosisPanel diagnosis={diagnosis} />
          </>
        ) : (
          <p className="soft">Nothing is in trouble by its signs.</p>
        )}
      </aside>
    </div>
  )
}

function PlantingName({ plantingId }: { plantingId: string }) {
  const { view } = useGardenContext()
  const { search } = useLocation()
  const p = view.plantings.find((x) => x.id === plantingId)
  const params = new URLSearchParams(search)
  params.delete('tab')
  return (
    <h2>
      <Link to={{ pathname: `../plants/${plantingId}`, search: params.toString() }}>
        {p && <KindName of={p.taxon} isShort />}
      </Link>{' '}
      <small>{p?.tag}</small>
    </h2>
  )
}

function Suspected({ data }: { data: DiagnosisView }) {
  const { view } = useGardenContext()
  const nameOf = usePlaceName()
  return (
    <section>
      <h2>Site changes the signs point to</h2>
      {data.suspected.length === 0 && (
        <p className="soft">None: where several plantings show the same, the plan already says why.</p>
      )}
      {data.suspected.map((s) => (
        <article key={`${s.placeId} ${s.cause}`} className="cause">
          <h3>
            {nameOf(s.placeId, 'A place')}: {s.cause}?{' '}
            <small>{s.share >= 0.7 ? 'most likely' : 'likely'}</small>
          </h3>
          <p>
            {listed(
              s.plantingIds.map(
                (id) => view.plantings.find((p) => p.id === id)?.taxon.botanical ?? 'a planting',
              ),
            )}{' '}
            show {listed(s.signs.map(signWords))}, and nothing drawn explains it.
          </p>
          <p className="soft">
            <b>To settle it:</b> {s.check}
          </p>
        </article>
      ))}
    </section>
  )
}

function Row({
  d,
  chosen,
  onChoose,
}: {
  d: DiagnosisView['diagnoses'][number]
  chosen: boolean
  onChoose: () => void
}) {
  const { view } = useGardenContext()
  const p = view.plantings.find((x) => x.id === d.plantingId)
  const nameOf = usePlaceName()
  const [first] = d.causes
  return (
    <li>
      <button
        type="button"
        aria-pressed={chosen}
        className={chosen ? 'is-chosen' : undefined}
        onClick={onChoose}
      >
        <span>
          {p && <KindName of={p.taxon} isShort />}{' '}
          <small>
            {p?.tag}, {nameOf(p?.placeId)}
          </small>
        </span>
        <span>
          {first?.cause}, {first?.odds}
          <small>{d.signs.length > 0 ? listed(d.signs.slice(0, 3).map(signWords)) : 'rated low'}</small>
        </span>
      </button>
    </li>
  )
}

const shareWords = (share: number) =>
  share === 0
    ? 'never'
    : share < 0.2
      ? 'seldom'
      : share < 0.45
        ? 'sometimes'
        : share < 0.7
          ? 'often'
          : 'nearly always'

/** The likelihood table: how often a cause at work puts a sign on a plant that minds it. */
function Table() {
  const { view, isHead } = useGardenContext()
  const { data } = useLikelihoods(view.garden.id)
  const [cause, setCause] = useState<SignCause>('more sun')
  const [open, setOpen] = useState(false)
  return (
    <section>
      <div className="spread">
        <h2>How signs are read</h2>
        <Button look="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Close the table' : 'Open the table'}
        </Button>
      </div>
      <p className="soft">
        Each cause, and how often it puts a sign on a plant that minds it. The shares are working figures;
        your practice’s own count wherever you set them.
      </p>
      {open && data && (
        <>
          <Select<SignCause>
            aria-label="Cause"
            value={cause}
            options={signCauses.map((c) => ({ value: c, label: c }))}
            onChange={setCause}
            popupMatchSelectWidth={false}
          />
          <ul className="signs-table">
            {data.rows
              .filter((r) => r.cause === cause)
              .map((r) => (
                <ShareRow key={`${r.sign} ${r.share}`} row={r} canEdit={isHead} />
              ))}
          </ul>
        </>
      )}
    </section>
  )
}

function ShareRow({ row, canEdit }: { row: LikelihoodView['rows'][number]; canEdit: boolean }) {
  const { view } = useGardenContext()
  const [share, setShare] = useState(row.share)
  const save = useGardenWrite(
    recordEndpoints.setShare,
    { gardenId: view.garden.id },
    'The garden’s signs are read anew.',
    () => ({ share: row.share }),
  )
  const changed = row.shipped !== null && Math.abs(row.share - row.shipped) > 0.001
  return (
    <li>
      <span>
        {signWords(row.sign)} <small>{row.why}</small>
      </span>
      <Slider
        min={0}
        max={0.95}
        step={0.05}
        disabled={!canEdit}
        value={share}
        ariaLabelForHandle={`${signWords(row.sign)} under ${row.cause}`}
        tooltip={{ formatter: (v) => `${Math.round(100 * (v ?? 0))} in 100` }}
        onChange={setShare}
        onChangeComplete={(v) => save.mutate({ sign: row.sign, cause: row.cause, share: v })}
      />
      <span>
        {shareWords(share)}
        {changed && canEdit && (
          <Button
            look="link"
            size="small"
            onClick={() => save.mutate({ sign: row.sign, cause: row.cause, share: null })}
          >
            as shipped
          </Button>
        )}
        {changed && row.changedBy && <small>{row.changedBy}</small>}
      </span>
    </li>
  )
}
