import type { GroundView, KnownTaxon, ReworkView, SchemeView } from '@border/contract'
import {
  counted,
  dayMonthYear,
  isLaidOut,
  type KindOf,
  kindsOf,
  minutesText,
  moneyWords,
  planKey,
  type Place,
  plantingCsv,
  reckonScheme,
  seasonOfFeeding,
  setWords,
  settingOut,
} from '@border/core'
import { useMemo } from 'react'
import { Link, useLocation, useParams } from 'react-router'
import { searchWith, useParam } from '../frame/address.ts'
import { Answered } from '../frame/Answered.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { metresText } from '../frame/words.ts'
import { useTaxa } from '../plants/queries.ts'
import { BedDrawing } from './BedDrawing.tsx'
import { DownloadCsv } from './DownloadCsv.tsx'
import { OnPaper } from './OnPaper.tsx'
import { useGround, usePrices, useInHand, useRelocation, useReworks } from './queries.ts'
import { Shopping } from './ReckoningPanel.tsx'
import { usePlace, useSchemeGround } from './useReworkPlace.ts'
import { useScheme } from './useScheme.ts'
import '../walk/sheet.css'
import './rework.css'

/** A scheme on paper: the bed, what is planted, where each plant is set from a base line, and what is bought. */
export function PlantingSheetScreen() {
  const { view } = useGardenContext()
  const { reworkId } = useParams() as { reworkId: string }
  const [schemeId] = useParam('scheme')
  return (
    <Answered of={[useReworks(view.garden.id), useTaxa()]} title="Planting sheet">
      {(reworks, taxa) => {
        const rework = reworks.find((r) => r.id === reworkId)
        const scheme = rework?.schemes.find((s) => s.id === schemeId) ?? rework?.schemes[0]
        return rework && scheme ? (
          <OfScheme rework={rework} scheme={scheme} taxa={taxa} />
        ) : (
          <ScreenHead title="Planting sheet" lead="This scheme is not there any more." />
        )
      }}
    </Answered>
  )
}

function OfScheme({
  rework,
  scheme,
  taxa,
}: {
  rework: ReworkView
  scheme: SchemeView
  taxa: readonly KnownTaxon[]
}) {
  const { view } = useGardenContext()
  const place = usePlace(rework.placeId)
  const kindOf: KindOf = useMemo(() => new Map(taxa.map((t) => [t.botanical, t])), [taxa])
  const ground = useGround(view.garden.id, rework.placeId, place !== undefined)
  if (!place) return <ScreenHead title="Planting sheet" lead="The place is not there any more." />
  return (
    <Answered of={[ground]} title={place.name}>
      {(ground) => <Sheet {...{ scheme, rework, place, ground, kindOf }} />}
    </Answered>
  )
}

interface Props {
  rework: ReworkView
  scheme: SchemeView
  place: Place
  ground: GroundView
  kindOf: KindOf
}

function Sheet({ rework, scheme, place, ground, kindOf }: Props) {
  const { view, today, isHead } = useGardenContext()
  const { said, step } = useScheme(view.garden.id, rework.id, scheme)
  const { search } = useLocation()
  const { bed, arranged, pockets, staysM2 } = useSchemeGround(
    place,
    ground,
    { said, plantedIds: scheme.plantedIds },
    kindOf,
  )
  const relocation = useRelocation(view.garden.id, said)
  const { data: offers = [] } = usePrices()
  const { data: inHand = [] } = useInHand(view.garden.id, place.id, said)
  const { sides, base, table } = useMemo(
    () => settingOut({ ground: bed, arranged, pockets }, said),
    [bed, arranged, pockets, said],
  )
  const { letters } = useMemo(() => planKey({ ...said, ground: bed }), [said, bed])
  const totals = reckonScheme(said, kindOf, {
    plantings: view.plantings,
    relocated: relocation.data,
    offers,
    bedM2: place.areaM2,
    staysM2,
    inHand,
    feedingSeason: seasonOfFeeding(today, view.garden.latitude < 0),
  })
  return (
    <>
      <ScreenHead
        title={`${place.name}: ${said.name}`}
        lead={`${counted(table.length, 'position')}, measured from a side of the bed.`}
        isNotPrinted
      >
        <DownloadCsv name="planting-table.csv" text={() => plantingCsv(table)}>
          Planting table as CSV
        </DownloadCsv>
        <Link to={{ pathname: `../rework/${rework.id}`, search: searchWith(search, { scheme: scheme.id }) }}>
          The scheme
        </Link>
      </ScreenHead>
      <div className="screen-body planting-sheet" tabIndex={0} aria-label="The planting sheet">
        <OnPaper
          params={{ gardenId: view.garden.id, reworkId: rework.id, schemeId: scheme.id }}
          sides={bed.viewedFrom.length}
          isLaidOut={isLaidOut(said)}
          link={scheme.link}
        />
        <p className="sheet-title">
          <b>{view.garden.name}</b>, {place.name}: {said.name}. {dayMonthYear(today)}. Agreed: ____________
        </p>
        <BedDrawing
          ground={bed}
          arranged={arranged}
          pockets={pockets}
          stones={said.stones}
          letters={letters}
          chosen={undefined}
          onChoose={() => {}}
          onMoved={undefined}
          onKey={() => false}
        />
        <h2>What is planted</h2>
        <table className="rework-table">
          <tbody>
            {kindsOf(said).map((k) => {
              const taxon = kindOf.get(k.botanical)
              return (
                <tr key={k.botanical}>
                  <td>
                    <b>{letters.get(k.botanical)}</b>
                  </td>
                  <td className="figure">{k.count}</td>
                  <td>
                    <i>{k.botanical}</i>, {taxon?.common ?? 'no longer in the plant library'}
                  </td>
                  <td>{taxon && setWords(taxon, place)}</td>
                </tr>
              )
            })}
          </tbody>
        </table>
        {said.between.length > 0 && (
          <p>
            <small>
              Depths are from the surface to the bottom of the bulb, with two to three times its own height of
              soil above it, three in light soil. Bulbs in pockets stand three of their own widths apart.
            </small>
          </p>
        )}
        <h2>Shopping list</h2>
        <Shopping totals={totals} />
        <p>
          <small>
            {minutesText(totals.minutes)} of work; {moneyWords(totals.price)} over three years
            {totals.shopping.oldestPrice &&
              `, by prices asked since ${dayMonthYear(totals.shopping.oldestPrice)}`}
            .
          </small>
        </p>
        <h2>Where each plant is set</h2>
        {isHead && (
          <p className="no-print">
            <Choose
              label="Measured from"
              value={String(sides.indexOf(base))}
              options={sides.map((s, i) => ({
                value: String(i),
                label: `the side of ${metresText(s.lengthM)}${i === 0 ? ', the longest' : ''}`,
              }))}
              onChange={(v) => {
                const { from, to } = sides[Number(v)]!
                step({ ...said, baseLine: [from, to] })
              }}
            />
          </p>
        )}
        <p>
          Lay a tape along the side of {metresText(base.lengthM)}, from its end at {metresText(base.from[0])}{' '}
          across and {metresText(base.from[1])} up the plan. Each plant: so far along the tape, and so far off
          it, to the left as you go{table.some((r) => r.offM < 0) && '; to the right below nothing'}.
        </p>
        <table className="rework-table" aria-label="Where each plant is set">
          <thead>
            <tr>
              <th className="figure">No.</th>
              <th>Plant</th>
              <th className="figure">Along</th>
              <th className="figure">Off</th>
            </tr>
          </thead>
          <tbody>
            {table.map((r) => (
              <tr key={r.number}>
                <td className="figure">{r.number}</td>
                <td>{r.name}</td>
                <td className="figure">{metresText(r.alongM)}</td>
                <td className="figure">{metresText(r.offM).replace('-', '−')}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </>
  )
}
