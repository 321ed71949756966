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
import { useFillers, useStanding } from './useStanding.ts'
import './rework.css'

interface Props {
  rework: ReworkView
  scheme: SchemeView
  /** The scheme as it is in hand. */
  said: SaidScheme
  place: Place
  ground: GroundView
  kindOf: KindOf
  moment: Moment
}

/** Two schemes of a place at the same moment, from the same side: the one in hand, and another. */
export function SideBySide({ rework, scheme, said, place, ground, kindOf, moment }: Props) {
  const [otherId, chooseOther] = useParam('other')
  const names = schemeNames(rework.schemes)
  const others = rework.schemes
    .map((s, i) => ({ scheme: s, name: names[i]! }))
    .filter((o) => o.scheme.id !== scheme.id)
  const other = others.find((o) => o.scheme.id === otherId) ?? others[0]
  const { viewedFrom } = useSchemeGround(place, ground, { ...scheme, said }, kindOf).bed
  const standpoint = useStandpoint(moment, viewedFrom, said.seenFromM)
  const shown = [
    { scheme: { ...scheme, said }, name: names[rework.schemes.indexOf(scheme)] ?? said.name },
    ...(other ? [other] : []),
  ]
  return (
    <div className="side-by-side">
      <MomentTools sides={viewedFrom} standpoint={standpoint} moment={moment} />
      {others.length > 1 && (
        <Choose
          label="Beside which scheme"
          value={other!.scheme.id}
          options={others.map((o) => ({ value: o.scheme.id, label: `beside ${o.name}` }))}
          onChange={chooseOther}
        />
      )}
      <div className="two-schemes">
        {shown.map((s) => (
          <OneOfTwo key={s.scheme.id} {...s} {...{ place, ground, kindOf, moment, standpoint }} />
        ))}
      </div>
    </div>
  )
}

function OneOfTwo({
  scheme,
  name,
  place,
  ground,
  kindOf,
  moment,
  standpoint,
}: {
  scheme: SchemeView
  name: string
  /** The same for both. */
  standpoint: Standpoint
} & Pick<Props, 'place' | 'ground' | 'kindOf' | 'moment'>) {
  const heading = useId()
  const { said } = scheme
  const { bed, arranged, pockets } = useSchemeGround(place, ground, scheme, kindOf)
  const laid = { ground: bed, arranged, pockets, said, kindOf }
  const fillers = useFillers(laid, useStanding(laid), moment.years)
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
      <SeenScheme {...{ laid, standpoint, moment, name }}>
        <BedDrawing
          {...{ ground: bed, arranged, pockets, moment, fillers }}
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
