import { reworkEndpoints } from '@border/contract'
import {
  capitalised,
  middleOfDrift,
  withMatrix,
  withMerged,
  withMirrored,
  withoutDrift,
  withRepeated,
  withSplit,
  withSwapped,
  type Arrangement,
  type BedGround,
  type Drift,
  type Place,
  type Point,
} from '@border/core'
import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { followGarden } from '../api/answers.ts'
import { errorText, writeAsSeen } from '../api/writes.ts'
import { announce } from '../frame/Announced.tsx'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { usePlaceName } from '../frame/usePlaceName.ts'
import { Figure } from '../frame/Figure.tsx'
import { useTaxa } from '../plants/queries.ts'
import { useReworks } from './queries.ts'
import { repeatedIn } from './repeatedIn.ts'
import './rework.css'

interface Props {
  ground: BedGround
  arranged: Arrangement
  onArranged: (arranged: Arrangement) => void
}

/** What can be done with the drift in hand. */
export function DriftTools({
  ground,
  arranged,
  onArranged,
  onChoose,
  id,
}: Props & { id: string; onChoose: (id: string | undefined) => void }) {
  const [alongM, setAlongM] = useState(3)
  const drift = arranged.drifts.find((d) => d.id === id)!
  const others = arranged.drifts.filter((d) => d.id !== id)
  const alike = others.filter((d) => d.taxon.botanical === drift.taxon.botanical)
  const right = toTheRight(ground)
  return (
    <section aria-label={`What to do with ${drift.taxon.common}`}>
      <h2>{capitalised(drift.taxon.common)}</h2>
      <div className="row">
        {drift.count > 1 && !drift.isMatrix && (
          <Button
            size="small"
            onClick={() => onArranged(withSplit(ground, arranged, id, crypto.randomUUID()))}
          >
            Split
          </Button>
        )}
        {alike.map((o, i) => (
          <Button key={o.id} size="small" onClick={() => onArranged(withMerged(ground, arranged, id, o.id))}>
            Make one with the other {o.count}
            {alike.length > 1 && ` (${i + 1})`}
          </Button>
        ))}
        <Button size="small" onClick={() => onArranged(withMatrix(ground, arranged, id, !drift.isMatrix))}>
          {drift.isMatrix ? 'Stand together again' : 'Run through the rest'}
        </Button>
        <Button
          size="small"
          danger
          look="text"
          onClick={() => {
            onChoose(undefined)
            onArranged(withoutDrift(ground, arranged, id))
          }}
        >
          Take out
        </Button>
      </div>
      {drift.isMatrix && (
        <small className="soft">
          It has whatever ground the others leave, and as many plants as stand there.
        </small>
      )}
      {others.length > 0 && !drift.isMatrix && (
        <div className="row">
          <Choose
            label="Change places with"
            value=""
            options={[
              { value: '', label: 'Change places with…' },
              ...others
                .filter((o) => !o.isMatrix)
                .map((o) => ({ value: o.id, label: `${o.count} ${o.taxon.common}` })),
            ]}
            onChange={(other) => other && onArranged(withSwapped(ground, arranged, id, other))}
          />
        </div>
      )}
      <div className="row">
        Again
        <Figure
          label="How much further along"
          value={alongM}
          min={-100}
          max={100}
          step={0.5}
          unit="m"
          onSay={(v) => setAlongM(v!)}
        />
        to the right
        <Button
          size="small"
          onClick={() =>
            onArranged(
              withRepeated(ground, arranged, [id], [alongM * right[0], alongM * right[1]], () =>
                crypto.randomUUID(),
              ),
            )
          }
        >
          Repeat it there
        </Button>
      </div>
      <RepeatElsewhere
        drift={drift}
        from={{ place: ground.of.place, middle: middleOfDrift(ground, arranged, id) }}
      />
    </section>
  )
}

/** A drift repeated in another place that is decided anew, as across a path. */
function RepeatElsewhere({
  drift,
  from,
}: {
  drift: Drift
  from: { place: Place; middle: Point | undefined }
}) {
  const { view, today } = useGardenContext()
  const { id: gardenId } = view.garden
  const { data: taxa = [] } = useTaxa()
  const placeName = usePlaceName()
  const { data: reworks = [] } = useReworks(gardenId)
  const others = reworks
    .filter((r) => r.placeId !== from.place.id)
    .flatMap((rework) => rework.schemes.map((scheme) => ({ rework, scheme })))
  const client = useQueryClient()
  const repeat = useMutation({
    mutationFn: async ({ rework, scheme }: (typeof others)[number]) => {
      const kindOf = new Map(taxa.map((t) => [t.botanical, t]))
      const { said, isPlaced } = await repeatedIn({ view, today }, { rework, scheme }, drift, from, kindOf)
      const params = { gardenId, reworkId: rework.id, schemeId: scheme.id }
      const seen = { revisionId: scheme.revisionId }
      await writeAsSeen(reworkEndpoints.keepScheme, { params, body: { said }, seen })
      await followGarden(client, gardenId)
      return isPlaced
    },
    onSuccess: (isPlaced, { rework }) =>
      announce.done(
        isPlaced
          ? `It stands opposite in ${placeName(rework.placeId)} too.`
          : `It stands in ${placeName(rework.placeId)} too: lay it out there.`,
      ),
    onError: (error) => announce.failed(errorText(error)),
  })
  if (others.length === 0) return null
  return (
    <div className="row">
      <Choose
        label="Repeat it in another place"
        value=""
        options={[
          { value: '', label: 'Repeat it in another place…' },
          ...others.map(({ rework, scheme }) => ({
            value: scheme.id,
            label: `${placeName(rework.placeId)}: ${scheme.said.name}`,
          })),
        ]}
        onChange={(id) => {
          const to = others.find((o) => o.scheme.id === id)
          if (to) repeat.mutate(to)
        }}
      />
    </div>
  )
}

/** Right, as whoever looks at the bed from its first side sees it. */
function toTheRight({ viewedFrom }: BedGround): Point {
  const a = ((viewedFrom[0] ?? 180) * Math.PI) / 180
  // They look the other way: their right is a quarter turn on from that.
  return [-Math.cos(a), Math.sin(a)]
}

/** One half made the mirror of the other, about the middle or about something that stays. */
export function Mirror({ ground, arranged, onArranged }: Props) {
  const [about, setAbout] = useState('')
  const right = toTheRight(ground)
  const { stations } = ground.of
  const stay = ground.stays.find((p) => p.id === about)
  const middle: Point = stay
    ? [stay.x, stay.y]
    : [
        stations.reduce((s, c) => s + c.x, 0) / stations.length,
        stations.reduce((s, c) => s + c.y, 0) / stations.length,
      ]
  const mirror = (keeps: 1 | -1) =>
    onArranged(
      withMirrored(
        ground,
        arranged,
        [middle, [middle[0] - right[1], middle[1] + right[0]]],
        [middle[0] + keeps * right[0], middle[1] + keeps * right[1]],
        () => crypto.randomUUID(),
      ),
    )
  return (
    <div className="row">
      <Choose
        label="Mirror it about"
        value={about}
        options={[
          { value: '', label: 'Mirror about the middle' },
          ...ground.stays.map((p) => ({ value: p.id, label: `Mirror about ${p.taxon.common}` })),
        ]}
        onChange={setAbout}
      />
      <Button size="small" onClick={() => mirror(-1)}>
        Left to right
      </Button>
      <Button size="small" onClick={() => mirror(1)}>
        Right to left
      </Button>
    </div>
  )
}
