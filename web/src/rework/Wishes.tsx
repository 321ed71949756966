import type { SaidWishes } from '@border/contract'
import { browsers, colourSchemes, layers, harmed, oklchOf, type Layer } from '@border/core'
import { Choose } from '../frame/Choose.tsx'
import { Tick, Ticks } from '../frame/Ticks.tsx'
import { Figure } from '../frame/Figure.tsx'
import './rework.css'

const CUSTOMS = [
  { value: 'odd', label: 'odd groups' },
  { value: 'blocks', label: 'large blocks' },
  { value: 'matrix', label: 'a matrix' },
] as const
const SCHEMES = [{ value: '', label: 'any' }, ...colourSchemes.map((s) => ({ value: s, label: s }))]
const LAYERS: Record<Layer, string> = { front: 'Low plants', middle: 'Middling ones', back: 'Tall ones' }
/** A hue to begin with, degrees: violet. */
const FIRST_HUE = 300

/** The wishes, one beside the other; what is left empty is not asked. */
export function Wishes({ wishes, onSay }: { wishes: SaidWishes; onSay: (wishes: SaidWishes) => void }) {
  const put = (change: Partial<SaidWishes>) => {
    const next = { ...wishes, ...change }
    // What is not asked is not there.
    onSay(Object.fromEntries(Object.entries(next).filter(([, v]) => v !== undefined)) as SaidWishes)
  }
  return (
    <div className="rework-wishes">
      <span>No taller than</span>
      <Figure
        label="No taller than"
        value={wishes.tallestM}
        min={0.1}
        max={30}
        step={0.1}
        unit="m"
        onSay={(v) => put({ tallestM: v! })}
      />
      <span>Kinds, at least and at most</span>
      <span className="row">
        <Figure
          label="Kinds at least"
          value={wishes.kinds.least}
          min={1}
          max={wishes.kinds.most}
          onSay={(v) => put({ kinds: { ...wishes.kinds, least: v! } })}
        />
        <Figure
          label="Kinds at most"
          value={wishes.kinds.most}
          min={wishes.kinds.least}
          max={60}
          onSay={(v) => put({ kinds: { ...wishes.kinds, most: v! } })}
        />
      </span>
      <span>Planted in</span>
      <Choose
        label="Planted in"
        value={wishes.drifts}
        options={CUSTOMS}
        onChange={(drifts) => put({ drifts })}
      />
      <span>For no more than</span>
      <Figure
        label="For no more than, money"
        value={wishes.budget === undefined ? null : wishes.budget / 100}
        min={0}
        max={1_000_000}
        canBeEmpty
        onSay={(v) => put({ budget: v === null ? undefined : Math.round(100 * v) })}
      />
      <GroundShare
        label="Green in winter"
        share={wishes.evergreenShare}
        onSay={(evergreenShare) => put({ evergreenShare })}
      />
      {layers.map((layer) => (
        <GroundShare
          key={layer}
          label={LAYERS[layer]}
          share={wishes.layerShares?.[layer]}
          onSay={(share) => {
            const { [layer]: _, ...rest } = wishes.layerShares ?? {}
            const next = share === undefined ? rest : { ...rest, [layer]: share }
            put({ layerShares: Object.keys(next).length > 0 ? next : undefined })
          }}
        />
      ))}
      <LeastKinds label="Scented kinds" least={wishes.scented} onSay={(scented) => put({ scented })} />
      <LeastKinds
        label="Kinds for wildlife"
        least={wishes.wildlife}
        onSay={(wildlife) => put({ wildlife })}
      />
      <span>Colours</span>
      <span className="row">
        <Choose
          label="Colours"
          value={wishes.scheme?.kind ?? ''}
          options={SCHEMES}
          onChange={(kind) =>
            put({
              scheme: kind
                ? { kind: kind as (typeof colourSchemes)[number], hue: wishes.scheme?.hue ?? FIRST_HUE }
                : undefined,
            })
          }
        />
        {wishes.scheme && (
          <input
            type="color"
            aria-label="The colour they go by"
            defaultValue="#7d5ba6"
            onBlur={(e) => put({ scheme: { ...wishes.scheme!, hue: Math.round(oklchOf(e.target.value).h) } })}
          />
        )}
      </span>
      <Ticks
        label="Harmless to"
        of={harmed}
        said={wishes.harmlessTo}
        onSay={(harmlessTo) => put({ harmlessTo })}
      />
      <Ticks label="Left alone by" of={browsers} said={wishes.leftBy} onSay={(leftBy) => put({ leftBy })} />
      <span className="wide">
        <Tick
          label="No week of the season without a flower"
          said={wishes.noBareWeek}
          onSay={(noBareWeek) => put({ noBareWeek })}
        />
      </span>
      <span className="wide">
        <Tick
          label="Annuals and what dies in winter as well"
          said={wishes.seasonal}
          onSay={(seasonal) => put({ seasonal })}
        />
      </span>
    </div>
  )
}

/** A share of the ground, said in hundredths. */
const GroundShare = ({
  label,
  share,
  onSay,
}: {
  label: string
  share: number | undefined
  onSay: (share: number | undefined) => void
}) => (
  <>
    <span>{label}, of the ground</span>
    <Figure
      label={`${label}, per cent of the ground`}
      value={share === undefined ? null : Math.round(100 * share)}
      min={0}
      max={100}
      unit="%"
      canBeEmpty
      onSay={(v) => onSay(v === null ? undefined : v / 100)}
    />
  </>
)

/** So many kinds of some sort at least. */
const LeastKinds = ({
  label,
  least,
  onSay,
}: {
  label: string
  least: number | undefined
  onSay: (least: number | undefined) => void
}) => (
  <>
    <span>{label}, at least</span>
    <Figure
      label={`${label} at least`}
      value={least ?? null}
      min={0}
      max={30}
      canBeEmpty
      onSay={(v) => onSay(v ?? undefined)}
    />
  </>
)
