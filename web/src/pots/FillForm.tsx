import type { BenchView } from '@border/contract'
import { dayMonth, portraitOf, type IsoDate, type PottedPlant, type Taxon } from '@border/core'
import { useMemo } from 'react'
import { Answered } from '../frame/Answered.tsx'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import type { Sprites } from '../frontView/sprites.ts'
import { useBench } from '../now/queries.ts'
import { useTaxa } from '../plants/queries.ts'
import { ComesOut, GoesIn, MixFields, WhenFields } from './FillFields.tsx'
import { PotPortrait } from './PotPortrait.tsx'
import { Proposals } from './Proposals.tsx'
import { stageOf } from './stage.ts'
import { useFill, type FilledPot } from './useFill.tsx'
import { bestAfter, frameFor } from './usePotRow.ts'

interface Props extends FilledPot {
  sprites: Sprites
  onClose: () => void
}

/** A container filled anew: what comes out, the mix, what goes in; seen and judged before anything is kept. */
export function FillForm(props: Props) {
  const { view } = useGardenContext()
  return (
    <Answered of={[useTaxa(), useBench(view.garden.id)]}>
      {(taxa, bench) => <Form {...props} taxa={taxa} bench={bench} />}
    </Answered>
  )
}

function Form({
  sprites,
  onClose,
  taxa,
  bench,
  ...filled
}: Props & { taxa: readonly Taxon[]; bench: readonly BenchView[] }) {
  const { pot, of, year } = filled
  const fill = useFill(filled, onClose)
  const { on, season } = fill.said
  return (
    <form
      className="fill-form"
      aria-label={`Fill ${pot.name}`}
      onSubmit={(e) => {
        e.preventDefault()
        if (!fill.wrong) fill.send()
      }}
    >
      <Preview {...{ pot, year, sprites }} together={fill.together} on={bestAfter(on, season, year)} />
      <div className="stack">
        <ComesOut pot={pot} fill={fill} />
        <GoesIn taxa={taxa} bench={bench} fill={fill} />
      </div>
      <div className="stack">
        <MixFields of={of} fill={fill} />
        <WhenFields fill={fill} />
        {fill.wrong && <p className="late">{fill.wrong}</p>}
        <div className="row">
          <Button look="primary" type="submit" loading={fill.isSending} disabled={fill.wrong !== undefined}>
            Keep it as filled
          </Button>
          <Button onClick={onClose}>Leave it</Button>
        </div>
      </div>
      <Proposals
        taxa={taxa}
        sprites={sprites}
        asked={{
          vessel: pot.vessel,
          site: fill.site,
          season,
          on,
          year,
          have: new Set(bench.map((b) => b.botanical)),
          harmlessTo: [],
        }}
        onTake={(proposal) => fill.take(proposal, bench)}
      />
    </form>
  )
}

function Preview({
  pot,
  together,
  year,
  sprites,
  on,
}: Pick<Props, 'pot' | 'year' | 'sprites'> & {
  together: readonly PottedPlant[]
  on: IsoDate
}) {
  const portrait = useMemo(
    () => portraitOf(pot.vessel, together, { on, year }),
    [pot.vessel, together, on, year],
  )
  const frame = frameFor([portrait])
  return (
    <figure className="fill-preview pots-stage" style={stageOf(frame)}>
      <PotPortrait
        {...{ portrait, sprites }}
        wideM={portrait.wideM}
        frame={frame}
        label={`${pot.name} as it would be on ${dayMonth(on)}`}
      />
      <figcaption className="soft">As it would be on {dayMonth(on)}</figcaption>
    </figure>
  )
}
