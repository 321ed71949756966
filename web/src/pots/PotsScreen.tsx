import type { ContainersView, PotView } from '@border/contract'
import { addDays, portraitOf, yearOf, type IsoDate, type Taxon, type Year } from '@border/core'
import { useMemo, useState } from 'react'
import { Link, useLocation } from 'react-router'
import { useChosen, useParam, useRestedParams } from '../frame/address.ts'
import { Answered, Empty } from '../frame/Answered.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { ScreenHead } from '../frame/ScreenHead.tsx'
import { Segments } from '../frame/Segments.tsx'
import { LAST_WEEK, weekOf, WeekSlider } from '../frame/WeekSlider.tsx'
import { Sprites } from '../frontView/sprites.ts'
import { useTaxa } from '../plants/queries.ts'
import { PotPanel } from './PotPanel.tsx'
import { PotPortrait, type PortraitFrame } from './PotPortrait.tsx'
import { coldWords } from './potWords.ts'
import { useContainers } from './queries.ts'
import { stageOf } from './stage.ts'
import { PotRound } from './PotRound.tsx'
import type { FillDesign } from './useFill.tsx'
import { standingOn, usePotRow, type RowPot } from './usePotRow.ts'
import { PotYears } from './PotYears.tsx'
import { Watering } from './Watering.tsx'
import './pots.css'

/** Containers side by side to one scale through the weeks of a year, and what there is to know of the one in hand. */
export function PotsScreen() {
  const { view } = useGardenContext()
  const containers = useContainers(view.garden.id)
  return (
    <Answered
      of={[containers, useTaxa()]}
      title="Pots"
      waiting="Light, weight and water of each pot are being worked out."
    >
      {(found, taxa) => <Pots found={found} taxa={taxa} />}
    </Answered>
  )
}

const VIEWS = [
  { value: 'pots', label: 'Pots' },
  { value: 'water', label: 'Watering' },
  { value: 'work', label: 'Work' },
  { value: 'years', label: 'Years' },
] as const

function Pots({ found, taxa }: { found: ContainersView; taxa: readonly Taxon[] }) {
  const { pots, frame, year } = usePotRow(found, taxa)
  const { search } = useLocation()
  const [said, show] = useParam('show')
  const moment = useWeek()
  if (pots.length === 0)
    return (
      <>
        <ScreenHead title="Pots" lead={leadOf(found)} />
        <Empty>
          There is no pot in this garden yet. Put one on the{' '}
          <Link to={{ pathname: '../plan', search }}>Plan</Link>: its shape, its size and where it stands are
          all that is needed to begin.
        </Empty>
      </>
    )
  const shown = VIEWS.find((v) => v.value === said)?.value ?? 'pots'
  const potName = (id: string) => pots.find((p) => p.id === id)?.name ?? 'a pot'
  const kindName = (botanical: string) => taxa.find((t) => t.botanical === botanical)?.common ?? botanical
  return (
    <>
      <ScreenHead title="Pots" lead={leadOf(found)}>
        {shown === 'pots' && <WeekSlider {...moment} />}
        <Segments
          label="What is shown"
          value={shown}
          options={VIEWS}
          onChange={(v) => show(v === 'pots' ? undefined : v)}
        />
      </ScreenHead>
      {found.coldNights.length > 0 && (
        <div className="pots-cold" role="status">
          {found.coldNights.map((night) => (
            <p key={night.day}>{coldWords(night, potName, kindName)}</p>
          ))}
          {found.isSimulated && <small className="soft">By a simulated forecast: look at a real one.</small>}
        </div>
      )}
      {shown === 'water' ? (
        <Watering {...{ pots, found }} />
      ) : shown === 'work' ? (
        <PotRound pots={pots} />
      ) : shown === 'years' ? (
        <PotYears {...{ pots, taxa, found }} />
      ) : (
        <Portraits {...{ pots, frame, year, found }} on={moment.on} />
      )}
    </>
  )
}

/** The week that portraits are of: this one, on its very day, unless another is in the address. */
function useWeek() {
  const { today } = useGardenContext()
  const [at, put] = useRestedParams(['week'])
  const usual = weekOf(today)
  const said = Number(at.week)
  const week = at.week !== undefined && said >= 0 && said <= LAST_WEEK ? Math.floor(said) : usual
  const on = week === usual ? today : addDays(`${yearOf(today)}-01-01`, 7 * week + 3)
  return { week, on, onWeek: (w: string) => put({ week: w }) }
}

function Portraits({
  pots,
  frame,
  year,
  found,
  on,
}: ReturnType<typeof usePotRow> & { found: ContainersView; on: IsoDate }) {
  const [chosenId, choose] = useChosen('pot', 'pot-panel')
  const [sprites] = useState(() => new Sprites())
  const [filling, setFilling] = useState<{ id: string; design?: FillDesign }>()
  const chosen = pots.find((p) => p.id === chosenId) ?? pots[0]!
  const view = found.pots.find((p) => p.id === chosen.id)
  return (
    <div className="screen-body pots">
      {filling?.id !== chosen.id && (
        <Row {...{ pots, frame, year, on, sprites }} chosenId={chosen.id} onChoose={choose} of={found.pots} />
      )}
      {view && (
        <PotPanel
          key={chosen.id}
          pot={chosen}
          of={view}
          all={found}
          row={pots}
          filling={filling?.id === chosen.id ? filling : undefined}
          onFilling={(is) => setFilling(is ? { id: chosen.id } : undefined)}
          onNext={(id, design) => {
            choose(id)
            setFilling({ id, design })
          }}
          {...{ year, sprites }}
        />
      )}
    </div>
  )
}

/** What presses first, of all of them. */
function leadOf({ pots }: ContainersView): string {
  const grave = pots.filter((p) => p.faults.includes('no holes') || p.remarks.some((r) => r.isGrave)).length
  const thirsty = pots.filter((p) => p.water?.some((m) => m.days && m.days.p50 <= 1.5)).length
  if (pots.length === 0) return 'Containers: what they hold, weigh and drink, and what grows in them.'
  return [
    `${pots.length === 1 ? 'One container' : `${pots.length} containers`}, to one scale.`,
    grave > 0 &&
      `${grave} ${grave === 1 ? 'has' : 'have'} something in ${grave === 1 ? 'it' : 'them'} that cannot stay so.`,
    thirsty > 0 && `${thirsty} ${thirsty === 1 ? 'wants' : 'want'} water every day in the heat of summer.`,
  ]
    .filter(Boolean)
    .join(' ')
}

function Row({
  pots,
  frame,
  year,
  on,
  sprites,
  chosenId,
  onChoose,
  of,
}: {
  pots: readonly RowPot[]
  frame: PortraitFrame
  year: Year
  on: IsoDate
  sprites: Sprites
  chosenId: string | undefined
  onChoose: (id: string) => void
  of: readonly PotView[]
}) {
  const half = frame.pxPerM / 2
  return (
    <div className="pots-row pots-stage" role="group" aria-label="Containers" style={stageOf(frame)}>
      {pots.map((pot) => (
        <OfRow
          key={pot.id}
          {...{ pot, frame, year, on, sprites }}
          isChosen={pot.id === chosenId}
          isGrave={of.find((p) => p.id === pot.id)?.faults.includes('no holes') ?? false}
          onChoose={() => onChoose(pot.id)}
        />
      ))}
      <small className="pots-scale" aria-hidden>
        <i style={{ width: half }} />
        50 cm
      </small>
    </div>
  )
}

function OfRow({
  pot,
  frame,
  year,
  on,
  sprites,
  isChosen,
  isGrave,
  onChoose,
}: {
  pot: RowPot
  frame: PortraitFrame
  year: Year
  on: IsoDate
  sprites: Sprites
  isChosen: boolean
  isGrave: boolean
  onChoose: () => void
}) {
  const plants = useMemo(() => standingOn(pot.stays, on), [pot, on])
  const portrait = useMemo(() => portraitOf(pot.vessel, plants, { on, year }), [pot, plants, on, year])
  const names = [...new Set(plants.map((p) => p.taxon.common))]
  return (
    <button type="button" className="pots-one" aria-pressed={isChosen} onClick={onChoose}>
      <PotPortrait
        {...{ portrait, frame, sprites }}
        wideM={pot.fullest.wideM}
        label={names.length > 0 ? `${pot.name} with ${names.join(', ')}` : `${pot.name}, empty`}
      />
      <span className={isGrave ? 'late' : undefined}>{pot.name}</span>
    </button>
  )
}
