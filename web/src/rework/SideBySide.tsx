import type { GroundView, ReworkView, SaidScheme, SchemeView } from '@border/contract'
import { counted, kindsOf, type KindOf, type Place, type Standpoint } from '@border/core'
import { sum } from 'd3-array'
import { useId } from 'react'
import { useParam } from '../frame/address.ts'
import { Choose } from '../frame/Choose.tsx'
import { BedDrawing } from './BedDrawing.tsx'
import { MomentTools } from './FromThePath.tsx'
import { schemeNames } from './schemeDraft.ts'
import { SeenScheme } from './SeenScheme.tsx'
import { useStandpoint, type Moment } from './useMoment.tsx'
import { useSchemeGround } from './useReworkPlace.ts'
import { useGrown, type Laid } from './useStanding.ts'
import './rework.css'

interface Props {
  rework: ReworkView
  scheme: SchemeView
  /** The scheme as it is in hand. */
  laid: Laid & { said: SaidScheme }
  place: Place
  ground: GroundView
  kindOf: KindOf
  moment: Moment
}

/** Two schemes of a place at the same moment, from the same side: the one in hand, and another. */
export function SideBySide({ rework, scheme, laid, place, ground, kindOf, moment }: Props) {
  const [otherId, chooseOther] = useParam('other')
  const names = schemeNames(rework.schemes)
  const others = rework.schemes
    .map((s, i) => ({ scheme: s, name: names[i]! }))
    .filter((o) => o.scheme.id !== scheme.id)
  const other = others.find((o) => o.scheme.id === otherId) ?? others[0]
  const sides = laid.ground.viewedFrom
  const standpoint = useStandpoint(moment, sides, laid.said.seenFromM)
  return (
    <div className="side-by-side">
      <MomentTools {...{ sides, standpoint, moment }} />
      {others.length > 1 && (
        <Choose
          label="Beside which scheme"
          value={other!.scheme.id}
          options={others.map((o) => ({ value: o.scheme.id, label: `beside ${o.name}` }))}
          onChange={chooseOther}
        />
      )}
      <div className="two-schemes">
        <OneOfTwo name={names[rework.schemes.indexOf(scheme)]!} {...{ laid, moment, standpoint }} />
        {other && (
          <Other key={other.scheme.id} {...other} {...{ place, ground, kindOf, moment, standpoint }} />
        )}
      </div>
    </div>
  )
}

interface Shown {
  name: string
  moment: Moment
  /** The same for both. */
  standpoint: Standpoint
}

/** A scheme that is not in hand, laid out as it was kept. */
function Other({
  scheme,
  place,
  ground,
  kindOf,
  ...shown
}: Shown & Pick<Props, 'scheme' | 'place' | 'ground' | 'kindOf'>) {
  const { bed, arranged, pockets } = useSchemeGround(place, ground, scheme, kindOf)
  return <OneOfTwo laid={{ ground: bed, arranged, pockets, said: scheme.said, kindOf }} {...shown} />
}

function OneOfTwo({ name, laid, moment, standpoint }: Shown & Pick<Props, 'laid'>) {
  const heading = useId()
  const { ground, arranged, pockets, said } = laid
  const grown = useGrown(laid, moment.years)
  const kinds = kindsOf(said)
  const plants = sum(kinds, (k) => k.count)
  return (
    <section aria-labelledby={heading}>
      <h2 id={heading}>
        {name}{' '}
        <small className="soft">
          {counted(plants, 'plant')} of {counted(kinds.length, 'kind')}
        </small>
      </h2>
      <SeenScheme {...{ laid, grown, standpoint, moment, name }}>
        <BedDrawing
          {...{ ground, arranged, pockets, moment }}
          fillers={grown.fillers}
          stones={said.stones}
          chosen={undefined}
          onChoose={nothing}
          onMoved={undefined}
          onKey={() => false}
        />
      </SeenScheme>
    </section>
  )
}

const nothing = () => {}
