import {
  standing,
  supposed,
  type IsoDate,
  type Obstruction,
  type Solid,
  type Supposition,
} from '@border/core'
import { Checkbox, Slider } from 'antd'
import { useGardenContext } from '../frame/gardenContext.ts'
import { metres } from './suppositionWords.ts'

/** What if it went, were limbed up, thinned, lowered or older: the light follows while dragging. */
export function SuppositionForm({
  obstruction,
  supposition,
  onSuppose,
}: {
  obstruction: Obstruction
  supposition: Supposition | undefined
  onSuppose: (supposition: Supposition | undefined) => void
}) {
  const { on } = useGardenContext()
  const solid = standing(obstruction, on)
  if (!solid) return null
  const t: Supposition = supposition ?? { obstructionId: obstruction.id }
  return (
    <>
      <div className="what-if">
        <span>Gone</span>
        <Checkbox checked={t.gone ?? false} onChange={(e) => onSuppose({ ...t, gone: e.target.checked })}>
          <span className="visually-hidden">Try it gone</span>
        </Checkbox>
        <span />
        {slidersOf(obstruction, solid, t, on).map((slider) => (
          <Row
            key={slider.label}
            {...slider}
            disabled={t.gone}
            onChange={(value) => onSuppose(slider.with(value))}
          />
        ))}
      </div>
      <small>Drag it on the plan to try it elsewhere. Nothing is kept until you say so.</small>
    </>
  )
}

/** One thing that can be tried of an obstruction. */
interface Tried {
  label: string
  min: number
  max: number
  step: number
  value: number
  text: string
  /** What is supposed once it has another value. */
  with: (value: number) => Supposition
}

/** What can be tried of an obstruction that stands, by what it is, as it is supposed to be. */
function slidersOf(obstruction: Obstruction, solid: Solid, t: Supposition, on: IsoDate): Tried[] {
  const shown = supposed(obstruction, { ...t, gone: false }, on)
  const heightM = shown?.heightM ?? solid.heightM
  const isPlant = obstruction.kind === 'tree' || obstruction.kind === 'hedge'
  const sliders: Tried[] = [
    {
      label: 'Height',
      min: 0.2,
      max: Math.ceil(solid.heightM * 2),
      step: 0.1,
      value: heightM,
      text: metres(heightM),
      with: (heightM) => ({ ...t, heightM }),
    },
  ]
  if (solid.shape === 'crown' && shown?.kind === 'tree')
    sliders.push(
      {
        label: 'Crown across',
        min: 0.4,
        max: 2 * Math.ceil(solid.radiusM * 2),
        step: 0.2,
        value: 2 * shown.crownRadiusM,
        text: metres(2 * shown.crownRadiusM),
        with: (acrossM) => ({ ...t, crownRadiusM: acrossM / 2 }),
      },
      {
        label: 'Limbed up to',
        min: 0,
        max: Math.max(0.2, Math.floor(shown.heightM * 9) / 10),
        step: 0.1,
        value: shown.clearStemM,
        text: metres(shown.clearStemM),
        with: (clearStemM) => ({ ...t, clearStemM }),
      },
    )
  if (isPlant && solid.shape !== 'prism' && solid.transmission > 0) {
    const percent = (t.thinnedBy ?? 0) * 100
    sliders.push({
      label: 'Thinned by',
      min: 0,
      max: 90,
      step: 5,
      value: percent,
      text: `${Math.round(percent)} %`,
      with: (percent) => ({ ...t, thinnedBy: percent / 100 }),
    })
  }
  if (obstruction.kind !== 'building' && obstruction.growth) {
    // Sizes set by hand would hide the growth.
    const { heightM: _h, crownRadiusM: _c, ...rest } = t
    sliders.push({
      label: 'Years on',
      min: 0,
      max: 30,
      step: 1,
      value: t.grownYears ?? 0,
      text: `${t.grownYears ?? 0}`,
      with: (grownYears) => ({ ...rest, grownYears }),
    })
  }
  return sliders
}

function Row(
  props: Omit<Tried, 'with'> & { disabled: boolean | undefined; onChange: (value: number) => void },
) {
  return (
    <>
      <span>{props.label}</span>
      <Slider
        ariaLabelForHandle={`Try: ${props.label}`}
        min={props.min}
        max={props.max}
        step={props.step}
        value={props.value}
        disabled={props.disabled ?? false}
        onChange={props.onChange}
        tooltip={{ formatter: null }}
      />
      <output>{props.text}</output>
    </>
  )
}
