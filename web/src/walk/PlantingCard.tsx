import type { ObservationEntry, WalkPlanting } from '@border/contract'
import {
  bloomStages,
  counted,
  isSign,
  ratingWords,
  seenWords,
  signParts,
  signs,
  signWords,
  stageWords,
  type BloomStage,
  type SignId,
} from '@border/core'
import { memo, useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { shortDate } from '../frame/words.ts'
import type { QueuedEntry } from '../offline/queued.ts'
import { Chip, PhotoButton, WordsField } from './fields.tsx'
import type { PlantingPatch } from './useNotes.ts'
import { KindName } from '../frame/KindName.tsx'
import { QuantityInput } from '../units/QuantityInput.tsx'

interface Props {
  planting: WalkPlanting
  queued: QueuedEntry | undefined
  /** The planting that keys act on. */
  current: boolean
  open: boolean
  onChange: (plantingId: string, patch: PlantingPatch) => void
  /** Opens it, or closes it when it is open. */
  onOpen: (plantingId: string, open: boolean) => void
  onPhoto: (plantingId: string, file: File) => void
}

/** A planting on the walk: a touch to rate it, a second to say its bloom, and everything else behind its name. */
export const PlantingCard = memo(function PlantingCard(props: Props) {
  const { planting, queued, current, open, onChange, onOpen } = props
  const entry = queued?.entry.kind === 'planting' ? queued.entry : undefined
  const set = (patch: PlantingPatch) => onChange(planting.id, patch)
  return (
    <li
      className={`walk-card${current ? ' is-current' : ''}${entry ? ' is-noted' : ''}`}
      id={`walk-${planting.id}`}
      aria-current={current ? 'true' : undefined}
    >
      <div className="walk-what">
        <button
          type="button"
          className="walk-name"
          aria-expanded={open}
          onClick={() => onOpen(planting.id, !open)}
        >
          <KindName of={planting} /> <small>{planting.tag}</small>
        </button>
        <p>
          Usually {planting.usual} now{planting.settling ? '; still settling in' : ''}.{' '}
          {planting.unseen && <b>{planting.unseen.says} </b>}
          {planting.last ? <LastLook planting={planting} /> : 'Not looked at before.'}
        </p>
      </div>
      <div className="walk-touch">
        <Ratings
          planting={planting}
          value={entry?.rating}
          onRate={(rating) => set({ rating, absent: false })}
        />
        <div className="walk-second">
          <Second planting={planting} entry={entry} set={set} />
          <Button look="text" size="large" onClick={() => onOpen(planting.id, !open)}>
            {open ? 'less' : extras(entry) || 'more'}
          </Button>
        </div>
      </div>
      {open && <Details {...props} entry={entry} set={set} />}
      {queued?.state === 'refused' && (
        <p role="alert" className="walk-refused">
          Not kept: {queued.why}
        </p>
      )}
    </li>
  )
})

interface Noting {
  planting: WalkPlanting
  entry: ObservationEntry | undefined
  set: (patch: PlantingPatch) => void
}

/** What a second touch says: that it blooms as it usually does by now, or that nothing of it shows. */
function Second({ planting, entry, set }: Noting) {
  const blooms = planting.usualStage !== 'none'
  return (
    <>
      {blooms && (
        <Chip
          on={entry?.stage === planting.usualStage}
          onClick={() =>
            set({
              stage: entry?.stage === planting.usualStage ? undefined : planting.usualStage,
              absent: false,
            })
          }
        >
          {stageWords[planting.usualStage]}
        </Chip>
      )}
      <Chip
        on={entry?.absent ?? false}
        onClick={() =>
          set(
            entry?.absent
              ? { absent: false }
              : { absent: true, stage: undefined, living: undefined, rating: undefined },
          )
        }
      >
        nothing shows
      </Chip>
    </>
  )
}

function LastLook({ planting }: { planting: WalkPlanting }) {
  const last = planting.last!
  return (
    <>
      {shortDate(last.on)}: {seenWords({ ...last, living: null }, planting.plantedCount)}
      {last.by && <small> {last.by}</small>}
    </>
  )
}

/** What was noted beside the rating, for the button that shows it. */
function extras(entry: ObservationEntry | undefined): string {
  if (!entry) return ''
  const n =
    (entry.signs?.length ?? 0) +
    [entry.living, entry.heightM, entry.spreadM, entry.note].filter((v) => v !== undefined).length
  return n === 0 ? '' : `${counted(n, 'thing')} more`
}

function Ratings({
  planting,
  value,
  onRate,
}: {
  planting: WalkPlanting
  value: number | undefined
  onRate: (rating: number | undefined) => void
}) {
  return (
    <div
      className="walk-ratings"
      role="group"
      aria-label={`How ${planting.botanical}, ${planting.tag}, does`}
    >
      {ratingWords.map((word, i) => (
        <button
          key={word}
          type="button"
          aria-pressed={value === i + 1}
          onClick={() => onRate(value === i + 1 ? undefined : i + 1)}
        >
          <b>{i + 1}</b>
          <span>{word}</span>
        </button>
      ))}
    </div>
  )
}

const SHOWN_SIGNS = 8

function Details({ planting, entry, set, onPhoto }: Pick<Props, 'planting' | 'onPhoto'> & Noting) {
  return (
    <div className="walk-more">
      <SignsSeen planting={planting} entry={entry} set={set} />
      <BloomSeen planting={planting} entry={entry} set={set} />
      <div className="walk-fields">
        <LivingCounted planting={planting} entry={entry} set={set} />
        <SizeField label="Height" value={entry?.heightM} onChange={(heightM) => set({ heightM })} />
        <SizeField label="Spread" value={entry?.spreadM} onChange={(spreadM) => set({ spreadM })} />
        <PhotoButton label="Photo" onFile={(file) => onPhoto(planting.id, file)} />
      </div>
      <WordsField label="Note" rows={2} most={2000} value={entry?.note} onChange={(note) => set({ note })} />
    </div>
  )
}

interface Noting {
  /** What is noted of it so far today. */
  entry: ObservationEntry | undefined
  set: (patch: PlantingPatch) => void
}

function SignsSeen({ planting, entry, set }: Pick<Props, 'planting'> & Noting) {
  const [all, setAll] = useState(false)
  const chosen = (entry?.signs ?? []).filter(isSign)
  const first = [...new Set([...planting.likely.slice(0, SHOWN_SIGNS), ...chosen])]
  const chip = (id: SignId) => (
    <Chip
      key={id}
      on={chosen.includes(id)}
      onClick={() => set({ signs: chosen.includes(id) ? chosen.filter((s) => s !== id) : [...chosen, id] })}
    >
      {signWords(id)}
    </Chip>
  )
  return (
    <fieldset>
      <legend>Signs{all ? '' : ', likeliest first'}</legend>
      {all ? (
        signParts.map((part) => (
          <div key={part} className="walk-chips">
            <small>{part}</small>
            {signs.filter((s) => s.part === part && planting.likely.includes(s.id)).map((s) => chip(s.id))}
          </div>
        ))
      ) : (
        <div className="walk-chips">
          {first.map(chip)}
          <Button look="link" onClick={() => setAll(true)}>
            All signs
          </Button>
        </div>
      )}
    </fieldset>
  )
}

function BloomSeen({ planting, entry, set }: Pick<Props, 'planting'> & Noting) {
  return (
    <fieldset>
      <legend>Bloom</legend>
      <div className="walk-chips">
        {bloomStages.map((stage: BloomStage) => (
          <Chip
            key={stage}
            on={entry?.stage === stage}
            onClick={() =>
              set({ stage: entry?.stage === stage ? undefined : stage, flush: undefined, absent: false })
            }
          >
            {stageWords[stage]}
            {stage === planting.usualStage ? ' (usual)' : ''}
          </Chip>
        ))}
        {entry?.stage && ['opening', 'full', 'fading'].includes(entry.stage) && (
          <Chip on={entry.flush === 2} onClick={() => set({ flush: entry.flush === 2 ? undefined : 2 })}>
            second flush
          </Chip>
        )}
      </div>
    </fieldset>
  )
}

function LivingCounted({ planting, entry, set }: Pick<Props, 'planting'> & Noting) {
  const living = entry?.living ?? planting.livingCount
  const count = (living: number) => set({ living, absent: false })
  return (
    <div>
      <span id={`count-${planting.id}`}>Living, of {planting.plantedCount}</span>
      <div className="walk-count" role="group" aria-labelledby={`count-${planting.id}`}>
        <button
          type="button"
          aria-label="One fewer living"
          disabled={living <= 1}
          onClick={() => count(living - 1)}
        >
          −
        </button>
        <output aria-live="polite">{living}</output>
        <button type="button" aria-label="One more living" onClick={() => count(living + 1)}>
          +
        </button>
        {entry?.living === undefined && (
          <Button look="link" onClick={() => count(living)}>
            Counted
          </Button>
        )}
      </div>
    </div>
  )
}

function SizeField({
  label,
  value,
  onChange,
}: {
  label: string
  value: number | undefined
  onChange: (metres: number | undefined) => void
}) {
  return (
    <label>
      <span>{label}, m</span>
      <QuantityInput
        size="large"
        min={0.01}
        max={60}
        step={0.1}
        value={value ?? null}
        onChange={(v) => onChange(v ?? undefined)}
      />
    </label>
  )
}
