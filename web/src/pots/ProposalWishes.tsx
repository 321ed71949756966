import { fullnesses, harmed, type Fullness, type Harmed } from '@border/core'
import { Choose } from '../frame/Choose.tsx'
import { Figure } from '../frame/Figure.tsx'
import { Segments } from '../frame/Segments.tsx'
import { Tick, Ticks } from '../frame/Ticks.tsx'

/** What is wished of a filling beside what the pot itself asks. */
export interface PotWishes {
  harmlessTo: readonly Harmed[]
  fullness: Fullness
  /** Minor unit; undefined: no matter what it costs. */
  budget: number | undefined
  seenFromM: number | undefined
  behind: keyof typeof backdrops | ''
  /** Other containers that are to be filled alike, by id. */
  alike: readonly string[]
}

export const NO_WISHES: PotWishes = {
  harmlessTo: [],
  fullness: 'now',
  budget: undefined,
  seenFromM: undefined,
  behind: '',
  alike: [],
}

/** What a pot stands before, and its colour. */
export const backdrops = {
  'white wall': '#f1efe9',
  'red brick': '#9a5a48',
  'grey stone': '#a8a399',
  'dark fence': '#4a4038',
  'green hedge': '#4c6b3c',
  'open sky': '#c9dcea',
} as const

const fullnessWords: Record<Fullness, string> = { now: 'full at once', 'in time': 'room to grow' }

/** Wishes for the fillings that are proposed. @param others containers that could be filled alike */
export function ProposalWishes({
  wishes,
  onSay,
  others,
}: {
  wishes: PotWishes
  onSay: (change: Partial<PotWishes>) => void
  others: readonly { id: string; name: string }[]
}) {
  return (
    <div
      className="pot-wishes"
      role="group"
      aria-label="What is wished of it"
      onKeyDown={(e) => {
        // Enter says a wish: it must not keep the fill that the form is of.
        if (e.key === 'Enter' && e.target instanceof HTMLInputElement) e.preventDefault()
      }}
    >
      <Segments<Fullness>
        label="How densely"
        value={wishes.fullness}
        options={fullnesses.map((f) => ({ value: f, label: fullnessWords[f] }))}
        onChange={(fullness) => onSay({ fullness })}
      />
      <span>
        At most{' '}
        <Figure
          label="At most, to buy"
          value={wishes.budget === undefined ? null : wishes.budget / 100}
          min={0}
          max={10_000}
          canBeEmpty
          onSay={(v) => onSay({ budget: v === null ? undefined : Math.round(100 * v) })}
        />{' '}
        to buy
      </span>
      <span>
        Looked at from{' '}
        <Figure
          label="Looked at from"
          value={wishes.seenFromM ?? null}
          min={0}
          max={100}
          unit="m"
          canBeEmpty
          onSay={(v) => onSay({ seenFromM: v ?? undefined })}
        />
      </span>
      <Choose<PotWishes['behind']>
        label="What stands behind it"
        value={wishes.behind}
        options={[
          { value: '', label: 'nothing said of what is behind' },
          ...(Object.keys(backdrops) as (keyof typeof backdrops)[]).map((b) => ({
            value: b,
            label: `before a ${b}`,
          })),
        ]}
        onChange={(behind) => onSay({ behind })}
      />
      <Ticks
        label="Harmless to"
        of={harmed}
        said={wishes.harmlessTo}
        onSay={(harmlessTo) => onSay({ harmlessTo: harmlessTo ?? [] })}
      />
      {others.length > 0 && (
        <details>
          <summary>
            {wishes.alike.length === 0 ? 'Others alike' : `Alike in ${wishes.alike.length + 1} containers`}
          </summary>
          <div className="row">
            {others.map((o) => (
              <Tick
                key={o.id}
                label={o.name}
                said={wishes.alike.includes(o.id)}
                onSay={(is) =>
                  onSay({ alike: [...wishes.alike.filter((a) => a !== o.id), ...(is ? [o.id] : [])] })
                }
              />
            ))}
          </div>
        </details>
      )}
    </div>
  )
}
