import { openingOf, type PlanFeature } from '@border/core'
import { useGardenContext } from '../frame/gardenContext.ts'
import { allParts, inHand, madeAlike, type Draft } from './draft.ts'
import type { Editor } from './useEditor.ts'
import { QuantityInput } from '../units/QuantityInput.tsx'

/** More than this are not put on a plan at once. */
const MOST = 40
/** Left between two of a row, metres. */
const BETWEEN_M = 0.2

/** Several containers alike, made at once: how many, how far apart, and which way their row runs. */
export function AlikeFields({ editor, draft, now }: { editor: Editor; draft: Draft; now: PlanFeature }) {
  const { view } = useGardenContext()
  const { alike } = draft
  const count = (alike?.ids.length ?? 0) + 1
  const usualM = Math.round(20 * (openingOf(now).lengthM + BETWEEN_M)) / 20
  const taken = view.features.filter((f) => f.id !== inHand(draft).id).map((f) => f.name)
  const names = allParts(draft).map((p) => p.now?.name)
  return (
    <section aria-label="Several alike">
      <h3>How many</h3>
      <div className="row">
        <QuantityInput
          aria-label="How many alike"
          value={count}
          min={1}
          max={MOST}
          precision={0}
          onChange={(v) => v !== null && editor.step(madeAlike(draft, v, taken, usualM), true)}
        />
        {alike && (
          <>
            <QuantityInput
              aria-label="Apart, from middle to middle"
              value={alike.apartM}
              min={0.1}
              max={20}
              step={0.05}
              suffix="m apart"
              onChange={(apartM) =>
                apartM !== null && editor.step({ ...draft, alike: { ...alike, apartM } }, true)
              }
            />
            <QuantityInput
              aria-label="The way their row runs"
              value={alike.towardsDeg}
              min={0}
              max={359}
              step={15}
              suffix="°"
              onChange={(towardsDeg) =>
                towardsDeg !== null && editor.step({ ...draft, alike: { ...alike, towardsDeg } }, true)
              }
            />
          </>
        )}
      </div>
      {alike && names.length > 1 && (
        <small>
          {names[0]} to {names.at(-1)}, in a row; 0° runs to the top of the plan, 90° to its right.
        </small>
      )}
    </section>
  )
}
