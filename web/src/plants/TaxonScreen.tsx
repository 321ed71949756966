import {
  counted,
  dayMonth,
  lightRange,
  listed,
  mayRunWild,
  opinionsOn,
  poisonousTo,
  regionsAt,
  rootKind,
  rootWords,
  runsWildIn,
  takenFor,
  tenths,
  usualBloom,
  usualYearAt,
  yearOf,
  Z90,
} from '@border/core'
import { taxonEndpoints, type KnownTaxon, type RecordView } from '@border/contract'
import { useState } from 'react'
import { Link, useLocation, useNavigate, useParams } from 'react-router'
import { useSignedIn } from '../api/session.ts'
import { usePracticeWrite } from '../api/writes.ts'
import { Button } from '../frame/Button.tsx'
import { useRecord } from '../record/queries.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Answered, Empty } from '../frame/Answered.tsx'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { TaxonFigure } from '../record/Taxa.tsx'
import { SeasonCell } from '../record/SeasonCell.tsx'
import { useTaxa } from './queries.ts'
import '../record/record.css'
import { CareHere } from './CareHere.tsx'
import { TaxonForm } from './TaxonForm.tsx'
import './plants.css'
import { KindName } from '../frame/KindName.tsx'

/** A taxon as this garden knows it: every place it stood, season by season, and how long its plants live. */
export function TaxonScreen() {
  const { botanical } = useParams() as { botanical: string }
  const { view } = useGardenContext()
  const record = useRecord(view.garden.id)
  const taxa = useTaxa()
  return (
    <Answered of={[record, taxa]} title={botanical}>
      {(record, taxa) => {
        const taxon = taxa.find((t) => t.botanical === botanical)
        return taxon ? (
          <TaxonHere taxon={taxon} record={record} />
        ) : (
          <Empty>No kind of this name is in the library.</Empty>
        )
      }}
    </Answered>
  )
}

function TaxonHere({ taxon, record }: { taxon: KnownTaxon; record: RecordView }) {
  const { botanical } = taxon
  const { view, on } = useGardenContext()
  const { person } = useSignedIn()
  const judged = record.taxa.find((t) => t.taxon === botanical)
  const stays = record.stays.filter((s) => s.botanical === botanical)
  const survival = record.survival.find((s) => s.taxon === botanical)
  return (
    <>
      <ScreenHead
        title={<KindName of={taxon} />}
        lead={<>{judged ? judged.says : 'It has no season on record in this garden yet.'}</>}
      >
        <Link to={{ pathname: '../record', search: '?tab=taxa' }}>All kinds</Link>
        {person.leads && <OwnKind taxon={taxon} />}
      </ScreenHead>
      <div className="screen-split">
        <div className="screen-body stack">
          {stays.length > 0 && <Stays stays={stays} seasons={record.seasons} />}
          {view.climate && <CareHere taxon={taxon} climate={view.climate} schools={view.schools} on={on} />}
          {survival && <Survival survival={survival} />}
        </div>
        <aside className="stack" aria-label="About this kind">
          {judged && (
            <section>
              <h2>{{ again: 'Plant again', 'not again': 'Not again', open: 'Not settled' }[judged.again]}</h2>
              <TaxonFigure taxon={judged} />
              <p>{judged.againSays}</p>
              <p className="soft">{judged.surer}</p>
            </section>
          )}
          <Usually taxon={taxon} />
        </aside>
      </div>
    </>
  )
}

/** Where its plants stood, season by season. */
function Stays({ stays, seasons }: { stays: RecordView['stays']; seasons: RecordView['seasons'] }) {
  const { search } = useLocation()
  const nameOf = usePlaceName()
  return (
    <table className="record-table">
      <thead>
        <tr>
          <th scope="col">Where it stood</th>
          {seasons.map((y) => (
            <th scope="col" key={y}>
              {y}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {stays.map((s) => (
          <tr key={s.id}>
            <th scope="row">
              <Link to={{ pathname: `../plants/${s.plantingId}`, search }}>{s.tag}</Link>{' '}
              {nameOf(s.placeId, 'a place that is gone')}{' '}
              <small>
                {s.from.slice(0, 4)}
                {s.to ? ` to ${s.to.slice(0, 4)}` : ''}, {s.livingCount} of {s.plantedCount} living
              </small>
            </th>
            {seasons.map((y) => (
              <SeasonCell key={y} figures={s.scores.find(([season]) => season === y)} />
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

function Survival({ survival }: { survival: RecordView['survival'][number] }) {
  return (
    <section>
      <h2>How long its plants live</h2>
      <p className="soft">
        {counted(survival.plants, 'plant')} followed from planting; those still alive or moved on count as far
        as they were seen.
      </p>
      <ul className="plain-list">
        {survival.steps.map((s) => (
          <li key={s.years}>
            after {tenths(s.years)} years {Math.round(100 * s.share)} in 100 live{' '}
            <small>
              ± {Math.round(100 * Z90 * s.se)}, {s.atRisk} still followed then
            </small>
          </li>
        ))}
      </ul>
    </section>
  )
}

/** What is known of it wherever it stands, with its bloom as it usually comes here. */
function Usually({ taxon }: { taxon: KnownTaxon }) {
  const { view, on } = useGardenContext()
  const bloom = usualBloom(taxon, yearOf(on), usualYearAt(view.climate, view.garden.latitude))
  const poisonous = poisonousTo(taxon)
  const wild = runsWildIn(taxon)
  const here = regionsAt(view.garden)
  const likenesses = takenFor(taxon)
  const opinion = opinionsOn(taxon)
  return (
    <section className="about-kind">
      <h2>What it usually is</h2>
      <dl className="facts">
        <div>
          <dt>Sun it likes</dt>
          <dd>{lightRange(taxon)}</dd>
        </div>
        <div>
          <dt>In flower</dt>
          <dd>{bloom ? `${dayMonth(bloom.from)} to ${dayMonth(bloom.to)}` : 'grown for leaf'}</dd>
        </div>
        <div>
          <dt>Grows to</dt>
          <dd>
            {taxon.heightM} m by {taxon.spreadM} m
          </dd>
        </div>
        <div>
          <dt>Its roots</dt>
          <dd>{rootWords[rootKind(taxon)]}</dd>
        </div>
        {poisonous.length > 0 && (
          <div>
            <dt>Poisonous to</dt>
            <dd>{listed(poisonous)}, if eaten</dd>
          </div>
        )}
        {wild && (
          <div>
            <dt>Runs wild in</dt>
            <dd>
              {listed(wild)}
              {mayRunWild(taxon, here) &&
                '; this garden lies there: look at the local list before planting it'}
            </dd>
          </div>
        )}
        <div>
          <dt>These figures are</dt>
          <dd>{surenessWords[taxon.sureness]}</dd>
        </div>
      </dl>
      {likenesses.length > 0 && (
        <>
          <h3>Taken for</h3>
          <ul className="plain-list">
            {likenesses.map((l) => (
              <li key={l.with}>
                <span className="taxon">{l.with}</span>: {l.toldBy}.
              </li>
            ))}
          </ul>
        </>
      )}
      {opinion && (
        <>
          <h3>Where gardeners differ</h3>
          <p>{opinion}</p>
        </>
      )}
    </section>
  )
}

const surenessWords: Record<KnownTaxon['sureness'], string> = {
  'well known': 'well known',
  usual: 'usual for its kind; cultivars differ',
  rough: 'rough: go by how it does here',
}

/** Changing what the practice knows of a taxon, or making another from it. */
function OwnKind({ taxon }: { taxon: KnownTaxon }) {
  const navigate = useNavigate()
  const { search } = useLocation()
  const [form, setForm] = useState<'change' | 'copy' | null>(null)
  const remove = usePracticeWrite(
    taxonEndpoints.remove,
    taxon.own === 'changed' ? 'As the library has it again.' : 'Gone from your library.',
    () => taxon,
  )
  const close = (made?: string) => {
    setForm(null)
    if (made && made !== taxon.botanical)
      void navigate({ pathname: `../plants/taxon/${encodeURIComponent(made)}`, search })
  }
  return (
    <>
      <Button onClick={() => setForm('change')}>Change it</Button>
      <Button onClick={() => setForm('copy')}>Make another from it</Button>
      {taxon.own && (
        <Button
          loading={remove.isPending}
          onClick={() =>
            // The page of a taxon that is gone goes with it: what follows must not hang on its being there.
            void remove
              .mutateAsync({ botanical: taxon.botanical })
              .then(() => taxon.own === 'new' && navigate({ pathname: '../plants', search }))
              .catch(() => {})
          }
        >
          {taxon.own === 'changed' ? 'As the library has it' : 'Take it away'}
        </Button>
      )}
      {form && <TaxonForm from={taxon} isCopy={form === 'copy'} onClose={close} />}
    </>
  )
}
