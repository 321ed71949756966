import {
  counted,
  dayMonthYear,
  dosed,
  dripFor,
  feedings,
  listed,
  materialNames,
  middleOf,
  minutesText,
  seasonOfFeeding,
  soilTextures,
  tenths,
  waterPoint,
  type Place,
} from '@border/core'
import type { SaidScheme } from '@border/contract'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { useCanChange } from './canChange.ts'
import { Figure } from '../frame/Figure.tsx'
import './rework.css'

interface Props {
  place: Place
  /** Ground that is planted, square metres. */
  areaM2: number
  said: SaidScheme
  onSay: (change: Partial<SaidScheme>) => void
}

/** What moves the soil to another reaction, feeds it, and waters it: as much of it as is said counts among what the scheme takes. */
export const SoilAndWater = (props: Props) => (
  <>
    <Part part="reaction" label="Lime or sulphur" {...props}>
      <Reaction {...props} />
    </Part>
    <Part part="feed" label="Feed" {...props}>
      <Feeding {...props} />
    </Part>
    <Part part="drip" label="Drip line" {...props}>
      <DripLine {...props} />
    </Part>
  </>
)

/** One of the things that may be taken up into the scheme: what is reckoned is a proposal until something of it is said. */
function Part({
  part,
  label,
  said,
  onSay,
  children,
}: Pick<Props, 'said' | 'onSay'> & {
  part: 'reaction' | 'feed' | 'drip'
  label: string
  children: React.ReactNode
}) {
  const canChange = useCanChange()
  const isIn = said[part] !== undefined
  return (
    <details open={isIn || undefined}>
      <summary>{label}</summary>
      {children}
      {canChange && isIn && (
        <Button size="small" look="text" onClick={() => onSay({ [part]: undefined })}>
          Leave it out of the scheme
        </Button>
      )}
      {!isIn && <p className="soft">Not part of the scheme yet.</p>}
    </details>
  )
}

const TEXTURES = soilTextures.map((t) => ({ value: t, label: t }))
const MEANS = [
  { value: 'sulphur', label: 'sulphur' },
  { value: 'aluminium sulphate', label: 'aluminium sulphate' },
] as const

function Reaction({ place, areaM2, said: { reaction }, onSay }: Props) {
  const said = {
    now: reaction?.now ?? place.ph ?? null,
    to: reaction?.to ?? 6.5,
    texture: reaction?.texture ?? place.texture ?? ('loam' as const),
    by: reaction?.by ?? ('sulphur' as const),
  }
  // Nothing is dosed on a guess: without a test nothing is kept.
  const put = (change: Partial<typeof said>) => {
    const { now, ...rest } = { ...said, ...change }
    onSay({ reaction: now === null ? undefined : { now, ...rest } })
  }
  const turns = dosed(said.now === null ? undefined : { ...said, now: said.now })
  return (
    <>
      <div className="rework-wishes">
        <span>By a test, pH</span>
        <Figure
          label="pH by a test"
          value={said.now}
          min={3}
          max={10}
          step={0.1}
          canBeEmpty
          onSay={(now) => put({ now })}
        />
        <span>Wanted, pH</span>
        <Figure
          label="pH that is wanted"
          value={said.to}
          min={3}
          max={10}
          step={0.1}
          onSay={(to) => put({ to: to! })}
        />
        <span>Soil</span>
        <Choose
          label="Texture of the soil"
          value={said.texture}
          options={TEXTURES}
          onChange={(texture) => put({ texture })}
        />
        {said.now !== null && said.to < said.now && (
          <>
            <span>With</span>
            <Choose label="With what" value={said.by} options={MEANS} onChange={(by) => put({ by })} />
          </>
        )}
      </div>
      <p>
        {said.now === null && 'Say what a test has shown: nothing is dosed on a guess.'}
        {said.now !== null &&
          !turns &&
          (said.to === said.now
            ? 'It is there already.'
            : 'Nothing would move it: free lime undoes sulphur as fast as it works.')}
        {turns && (
          <>
            {tenths(turns.inAllKgM2 * areaM2)} kg of {turns.with} in all, over {tenths(areaM2)} m²
            {turns.turns.length > 1 ? ` in ${counted(turns.turns.length, 'giving')}: ` : ': '}
            {turns.turns
              .map(
                (t) =>
                  `${tenths(t.kgM2 * areaM2)} kg ${t.afterMonths === 0 ? 'now' : `after ${t.afterMonths} months`}`,
              )
              .join(', ')}
            . Test the soil before each giving, and follow the label.
          </>
        )}
      </p>
    </>
  )
}

function Feeding({ areaM2, said: { feed }, onSay }: Props) {
  const { view, today } = useGardenContext()
  const said = feed ?? { gramsPerM2: 70, lifeDays: 90 }
  const put = (change: Partial<typeof said>) => onSay({ feed: { ...said, ...change } })
  const [from, until] = seasonOfFeeding(today, view.garden.latitude < 0)
  const fed = feedings({ name: materialNames.feed, ...said }, areaM2, from, until)
  return (
    <>
      <div className="rework-wishes">
        <span>By its label, grams on each m²</span>
        <Figure
          label="Grams on a square metre"
          value={said.gramsPerM2}
          min={1}
          max={1000}
          onSay={(v) => put({ gramsPerM2: v! })}
        />
        <span>It goes on feeding, days</span>
        <Figure
          label="Days that it goes on feeding"
          value={said.lifeDays}
          min={0}
          max={720}
          onSay={(v) => put({ lifeDays: v! })}
        />
      </div>
      <p>
        {tenths(fed.gramsInAll / 1000)} kg in all
        {fed.on.length > 0 &&
          `: ${tenths(fed.gramsEach / 1000)} kg on ${listed(fed.on.map((day) => dayMonthYear(day)))}`}
        . Growth is fed from {dayMonthYear(from)} and no later than {dayMonthYear(until)}: what is soft then
        is cut by frost.
      </p>
    </>
  )
}

function DripLine({ place, areaM2, said: { drip: kept }, onSay }: Props) {
  const { standing } = useGardenContext()
  const tap = waterPoint(
    standing,
    standing.filter((f) => f.id === place.id).map((f) => middleOf(f.geometry)),
  )
  const said = kept ?? {
    lineSpacingM: 0.4,
    emitterSpacingM: 0.3,
    emitterLitresPerHour: 2,
    mm: 15,
    tapLitresPerHour: tap?.litresPerHour ?? 600,
  }
  const put = (change: Partial<typeof said>) => onSay({ drip: { ...said, ...change } })
  const drip = dripFor(areaM2, said, said.mm, said.tapLitresPerHour ?? undefined)
  return (
    <>
      <div className="rework-wishes">
        <span>From line to line</span>
        <Figure
          label="From line to line"
          value={said.lineSpacingM}
          min={0.1}
          max={5}
          step={0.05}
          unit="m"
          onSay={(v) => put({ lineSpacingM: v! })}
        />
        <span>From emitter to emitter</span>
        <Figure
          label="From emitter to emitter"
          value={said.emitterSpacingM}
          min={0.1}
          max={5}
          step={0.05}
          unit="m"
          onSay={(v) => put({ emitterSpacingM: v! })}
        />
        <span>From each emitter</span>
        <Figure
          label="From each emitter"
          value={said.emitterLitresPerHour}
          min={0.1}
          max={50}
          step={0.1}
          unit="l/h"
          onSay={(v) => put({ emitterLitresPerHour: v! })}
        />
        <span>Water wanted</span>
        <Figure
          label="Water wanted"
          value={said.mm}
          min={1}
          max={100}
          unit="mm"
          onSay={(v) => put({ mm: v! })}
        />
        <span>The tap gives</span>
        <Figure
          label="What the tap gives"
          value={said.tapLitresPerHour}
          min={10}
          max={10_000}
          step={10}
          unit="l/h"
          canBeEmpty
          onSay={(v) => put({ tapLitresPerHour: v })}
        />
      </div>
      <p>
        {Math.ceil(drip.lineM)} m of line with {drip.emitters} emitters, {Math.round(drip.litresPerHour)} l an
        hour. {said.mm} mm take {minutesText(Math.round(drip.minutes))}
        {drip.turns > 1 && ` each, in ${counted(drip.turns, 'turn')} for the tap`}.
      </p>
    </>
  )
}
