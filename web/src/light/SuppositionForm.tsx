import { standing, supposed, type Obstruction, type Supposition } from '@border/core'
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
  const shown = supposed(obstruction, { ...t, gone: false }, on)
  const set = (change: Partial<Supposition>) => onSuppose({ ...t, ...change })
  const crown = solid.shape === 'crown' ? solid : undefined
  const shownTree = shown?.kind === 'tree' ? shown : undefined
  const isPlant = obstruction.kind === 'tree' || obstruction.kind === 'hedge'
  const canThin = isPlant && solid.shape !== 'prism' && solid.transmission > 0
  return (
    <>
      <div className="what-if">
        <span>Gone</span>
        <Checkbox checked={t.gone ?? false} onChange={(e) => set({ gone: e.target.checked })}>
          <span className="visually-hidden">Try it gone</span>
        </Checkbox>
        <span />
        <Row
          label="Height"
          min={0.2}
          max={Math.ceil(solid.heightM * 2)}
          step={0.1}
          value={shown?.heightM ?? solid.heightM}
          text={metres(shown?.heightM ?? solid.heightM)}
          disabled={t.gone}
          onChange={(heightM) => set({ heightM })}
        />
        {crown && shownTree && (
          <>
            <Row
              label="Crown across"
              min={0.2}
              max={Math.ceil(crown.radiusM * 2)}
              step={0.1}
              value={shownTree.crownRadiusM}
              text={metres(2 * shownTree.crownRadiusM)}
              disabled={t.gone}
              onChange={(crownRadiusM) => set({ crownRadiusM })}
            />
            <Row
              label="Limbed up to"
              min={0}
              max={Math.max(0.2, Math.floor(shownTree.heightM * 9) / 10)}
              step={0.1}
              value={shownTree.clearStemM}
              text={metres(shownTree.clearStemM)}
              disabled={t.gone}
              onChange={(clearStemM) => set({ clearStemM })}
            />
          </>
        )}
        {canThin && (
          <Row
            label="Thinned by"
            min={0}
            max={90}
            step={5}
            value={(t.thinnedBy ?? 0) * 100}
            text={`${Math.round((t.thinnedBy ?? 0) * 100)} %`}
            disabled={t.gone}
            onChange={(percent) => set({ thinnedBy: percent / 100 })}
          />
        )}
        {obstruction.kind !== 'building' && obstruction.growth && (
          <Row
            label="Years on"
            min={0}
            max={30}
            step={1}
            value={t.grownYears ?? 0}
            text={`${t.grownYears ?? 0}`}
            disabled={t.gone}
            onChange={(grownYears) => {
              // Sizes set by hand would hide the growth.
              const { heightM: _h, crownRadiusM: _c, ...rest } = t
              onSuppose({ ...rest, grownYears })
            }}
          />
        )}
      </div>
      <small>Drag it on the plan to try it elsewhere. Nothing is kept until you say so.</small>
    </>
  )
}

function Row(props: {
  label: string
  min: number
  max: number
  step: number
  value: number
  text: string
  disabled: boolean | undefined
  onChange: (value: number) => void
}) {
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
