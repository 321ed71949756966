import type { PlaceEntry, WalkPlace } from '@border/contract'
import { isUnknown, listed } from '@border/core'
import { useState } from 'react'
import { photoAddress } from '../record/queries.ts'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDate } from '../frame/words.ts'
import type { QueuedEntry } from '../offline/queued.ts'
import { Chip, PhotoButton, WordsField } from './fields.tsx'
import type { PlacePatch } from './useNotes.ts'

interface Props {
  gardenId: string
  place: WalkPlace
  queued: QueuedEntry | undefined
  onChange: (placeId: string, patch: PlacePatch) => void
  onPhoto: (about: { placeId: string; standpointId?: string }, file: File) => void
}

type Choice = 'weeds' | 'mulch' | 'soil'
const choices: { field: Choice; label: string; options: readonly string[] }[] = [
  { field: 'weeds', label: 'Weeds', options: ['none', 'some', 'many'] },
  { field: 'mulch', label: 'Mulch', options: ['good', 'thin', 'none'] },
  { field: 'soil', label: 'Soil at finger depth', options: ['dry', 'moist', 'wet'] },
]
const HOLES_M = [0.3, 0.5, 0.8, 1.2]

/** What is noted of a place itself: holes, weeds, mulch, moisture, what looks good, and the photo from its standpoint. */
export function PlaceCard({ gardenId, place, queued, onChange, onPhoto }: Props) {
  const entry = queued?.entry.kind === 'place' ? queued.entry : undefined
  const [open, setOpen] = useState(false)
  return (
    <section className="walk-place" aria-label={`${place.name} itself`}>
      <div className="spread">
        <button type="button" className="walk-name" aria-expanded={open} onClick={() => setOpen(!open)}>
          The {place.kind === 'bed' ? 'bed' : 'pot'} itself
        </button>
        <small>{entry ? placeWords(entry) : place.last ? lastWords(place) : 'not looked at before'}</small>
      </div>
      {open && (
        <PlaceDetails {...{ gardenId, place, entry, onPhoto }} set={(patch) => onChange(place.id, patch)} />
      )}
      <Unnamed placeId={place.id} />
      {queued?.state === 'refused' && (
        <p role="alert" className="walk-refused">
          Not kept: {queued.why}
        </p>
      )}
    </section>
  )
}

/** What grows here and is not in the list, because nobody knows what should be looked for. */
function Unnamed({ placeId }: { placeId: string }) {
  const { view } = useGardenContext()
  const tags = view.plantings.filter((p) => p.placeId === placeId && isUnknown(p.taxon)).map((p) => p.tag)
  if (tags.length === 0) return null
  return <small>Not in the list before it has a name: {listed(tags)}.</small>
}

interface DetailsProps extends Pick<Props, 'gardenId' | 'place' | 'onPhoto'> {
  entry: PlaceEntry | undefined
  set: (patch: PlacePatch) => void
}

function PlaceDetails({ gardenId, place, entry, onPhoto, set }: DetailsProps) {
  return (
    <div className="walk-more">
      {choices.map(({ field, label, options }) => (
        <fieldset key={field}>
          <legend>
            {label}
            {place.last?.[field] ? <small>, last {place.last[field]}</small> : null}
          </legend>
          <div className="walk-chips">
            {options.map((o) => (
              <Chip
                key={o}
                on={entry?.[field] === o}
                onClick={() => set({ [field]: entry?.[field] === o ? undefined : o })}
              >
                {o}
              </Chip>
            ))}
          </div>
        </fieldset>
      ))}
      <Ground entry={entry} set={set} />
      <WordsField
        label="Looks good together now"
        most={500}
        value={entry?.goodTogether}
        onChange={(goodTogether) => set({ goodTogether })}
      />
      <WordsField
        label="Missing"
        most={500}
        value={entry?.missing}
        onChange={(missing) => set({ missing })}
      />
      <WordsField label="Note" rows={2} most={2000} value={entry?.note} onChange={(note) => set({ note })} />
      {place.standpoints.map((s) => (
        <Standpoint
          key={s.id}
          gardenId={gardenId}
          standpoint={s}
          onFile={(file) => onPhoto({ placeId: place.id, standpointId: s.id }, file)}
        />
      ))}
      <PhotoButton
        label={`Photo of the ${place.kind === 'bed' ? 'bed' : 'pot'}`}
        onFile={(file) => onPhoto({ placeId: place.id }, file)}
      />
    </div>
  )
}

/** Edges, water and bare holes. */
function Ground({ entry, set }: Pick<DetailsProps, 'entry' | 'set'>) {
  return (
    <>
      <fieldset>
        <legend>Also</legend>
        <div className="walk-chips">
          <Chip
            on={entry?.edgesLost ?? false}
            onClick={() => set({ edgesLost: entry?.edgesLost ? undefined : true })}
          >
            edge lost
          </Chip>
          <Chip
            on={entry?.waterMisses ?? false}
            onClick={() => set({ waterMisses: entry?.waterMisses ? undefined : true })}
          >
            water does not reach
          </Chip>
        </div>
      </fieldset>
      <fieldset>
        <legend>Bare holes, by width</legend>
        <div className="walk-chips">
          {HOLES_M.map((m) => (
            <Chip key={m} onClick={() => set({ holesM: [...(entry?.holesM ?? []), m] })}>
              + {m} m
            </Chip>
          ))}
          {(entry?.holesM ?? []).map((m, i) => (
            <Chip
              key={i}
              on
              label={`Take away the hole of ${m} m`}
              onClick={() => set({ holesM: entry!.holesM!.filter((_, k) => k !== i) })}
            >
              {m} m ✕
            </Chip>
          ))}
        </div>
      </fieldset>
    </>
  )
}

/** The photo taken from there before, to frame the next one by. */
function Standpoint({
  gardenId,
  standpoint,
  onFile,
}: {
  gardenId: string
  standpoint: WalkPlace['standpoints'][number]
  onFile: (file: File) => void
}) {
  return (
    <figure className="walk-standpoint">
      {standpoint.lastPhotoId && (
        <img
          src={photoAddress(gardenId, standpoint.lastPhotoId, 'small')}
          alt={`${standpoint.name}, ${shortDate(standpoint.lastTakenOn!)}`}
        />
      )}
      <figcaption>
        <b>{standpoint.name}</b> {standpoint.framing}
        {standpoint.lastTakenOn && (
          <small> Last taken {shortDate(standpoint.lastTakenOn)}: frame it the same.</small>
        )}
        <PhotoButton label="Take it again" onFile={onFile} />
      </figcaption>
    </figure>
  )
}

function placeWords(e: PlaceEntry): string {
  const parts = [
    e.weeds && `weeds: ${e.weeds}`,
    e.mulch && `mulch ${e.mulch}`,
    e.soil && `soil ${e.soil}`,
    e.holesM?.length ? `${e.holesM.length} bare` : '',
    e.goodTogether || e.missing || e.note ? 'noted' : '',
  ].filter(Boolean)
  return parts.join(', ') || 'noted'
}

function lastWords({ last }: WalkPlace): string {
  const { weeds, mulch, soil, holesM } = last!
  const parts = [
    weeds && `weeds: ${weeds}`,
    mulch && `mulch ${mulch}`,
    soil && `soil ${soil}`,
    holesM.length > 0 && `holes of ${holesM.join(' and ')} m`,
  ].filter(Boolean)
  return `${shortDate(last!.on)}: ${parts.join(', ') || 'looked at'}`
}
