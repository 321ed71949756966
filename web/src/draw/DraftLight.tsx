import {
  obstructionOf,
  placeOf,
  placesOn,
  sceneOf,
  type Feature,
  type GardenField,
  type LightPeriod,
} from '@border/core'
import { useId, useMemo } from 'react'
import { useGardenContext } from '../frame/gardenContext.ts'
import { picturesOf, potColoursOf } from '../light/look.ts'
import { useGardenField, useSupposedField, type Trying } from '../light/useGardenField.ts'
import type { FieldImage } from '../plan/Ground.tsx'
import { FieldPicture, ringPath } from '../plan/Ground.tsx'
import type { PlanScale } from '../plan/scale.ts'
import { inHand, isChanged, type Draft } from './draft.ts'

export interface PlanScreenLight {
  /** Pictures of the light over the beds; none where it is not wanted. */
  fields: readonly FieldImage[] | undefined
  pots: ReadonlyMap<string, string> | undefined
  /** Over the bed that is being changed, by its outline now. */
  ofDraft: readonly FieldImage[]
}

const LOOK = { stretch: 'total', measure: 'hours' } as const

/**
 * Hours of sun over the growing season on the plan as it is drawn, following what is changed: what casts shade as it is dragged, and
 * a bed as its outline is.
 */
export function usePlanScreenLight(wanted: boolean, draft: Draft | undefined): PlanScreenLight {
  const { view, standing, on } = useGardenContext()
  const scene = useMemo(() => sceneOf(view.garden, view.features), [view.garden, view.features])
  const places = useMemo(() => placesOn(standing, on), [standing, on])
  const period = useMemo((): LightPeriod => ({ kind: 'season', on }), [on])
  const changed = useMemo(() => (draft && isChanged(draft) ? featureNow(draft) : undefined), [draft])
  const obstruction = useMemo(() => changed && obstructionOf(changed), [changed])
  const trying = useMemo(
    (): Trying | undefined =>
      wanted && obstruction ? { obstructionId: obstruction.id, changed: obstruction } : undefined,
    [wanted, obstruction],
  )
  const bed = useMemo(() => (changed?.kind === 'bed' ? placeOf(changed) : undefined), [changed])
  const beds = useMemo(() => (bed ? [bed] : []), [bed])
  const now = useGardenField(scene, places, wanted && !trying ? period : undefined)
  const tried = useSupposedField(scene, places, period, trying)
  const ofBed = useGardenField(scene, beds, wanted && bed ? period : undefined)
  const field = tried.field ?? now.field
  return useMemo(
    () => ({
      fields: wanted ? pictures(field) : undefined,
      pots: wanted ? potColoursOf(field, { ...LOOK, less: undefined }) : undefined,
      ofDraft: wanted && bed ? pictures(ofBed.field) : [],
    }),
    [wanted, field, bed, ofBed.field],
  )
}

const pictures = (field: GardenField | undefined) => picturesOf(field, { ...LOOK, less: undefined })

function featureNow(draft: Draft): Feature | undefined {
  const { id, now } = inHand(draft)
  if (!now) return undefined
  const g = now.geometry
  const isWhole =
    g.type === 'Point'
      ? !Number.isNaN(g.coordinates[0])
      : g.type === 'LineString'
        ? g.coordinates.length > 1
        : g.coordinates[0]!.length > 3
  // What was never said of a size casts no shade that could be worked out.
  const hasHeight = now.kind === 'bed' || typeof now.properties.heightM === 'number'
  return isWhole && hasHeight ? { ...now, id } : undefined
}

/** The light over a bed by the outline that it is being given. */
export function DraftField({
  draft,
  field,
  scale,
}: {
  draft: Draft
  field: readonly FieldImage[]
  scale: PlanScale
}) {
  const clip = useId()
  const { id, now } = inHand(draft)
  if (field.length === 0 || !now || now.kind !== 'bed') return null
  return (
    <>
      <clipPath id={clip}>
        <path d={ringPath({ ...now, id }, scale)} />
      </clipPath>
      <g clipPath={`url(#${clip})`} opacity={0.9}>
        {field.map((f, i) => (
          <FieldPicture key={i} field={f} scale={scale} />
        ))}
      </g>
    </>
  )
}
