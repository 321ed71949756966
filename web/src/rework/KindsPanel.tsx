import type { InHandView, TrayView } from '@border/contract'
import { counted, type KindOf, kindsOf, moneyWords, type Place } from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { useCanChange } from './canChange.ts'
import { BloomStrip } from './BloomStrip.tsx'
import { Proposed } from './Palettes.tsx'
import { useInHand, useProposing, useRelocation, useTray } from './queries.ts'
import { bringsWords, sourcesWords, sourceWords } from './reworkWords.ts'
import { withKind, withoutKind, withPalette, withWish } from './schemeDraft.ts'
import type { SchemeEditor } from './useScheme.ts'
import { Wishes } from './Wishes.tsx'
import './rework.css'
import { KindName } from '../frame/KindName.tsx'

interface Props {
  place: Place
  editor: SchemeEditor
  kindOf: KindOf
}

/** Which kinds come in: wished for, proposed, and taken from the tray one by one. */
export function KindsPanel({ place, editor, kindOf }: Props) {
  const { view } = useGardenContext()
  const canChange = useCanChange()
  const { said, step } = editor
  const proposing = useProposing(view.garden.id, place.id)
  const { data: relocated } = useRelocation(view.garden.id, said)
  const tray = useTray(view.garden.id, place.id, said, relocated, kindsOf(said))
  const { data: inHand = [] } = useInHand(view.garden.id, place.id, said)
  return (
    <>
      <Chosen editor={editor} kindOf={kindOf} inHand={inHand} />
      {tray.data && (
        <>
          <h2>In flower</h2>
          <BloomStrip weeks={tray.data.weeks} flowering={tray.data.flowering} kindOf={kindOf} />
        </>
      )}
      {canChange && (
        <>
          <details>
            <summary>What you wish of it</summary>
            <Wishes wishes={said.wishes} onSay={(wishes) => step({ ...said, wishes })} />
          </details>
          <div className="row">
            {proposing.isLooking ? (
              <>
                <progress
                  max={3}
                  value={proposing.palettes.length}
                  aria-label="Palettes that have been found"
                />
                <Button size="small" onClick={proposing.stop}>
                  Stop
                </Button>
              </>
            ) : (
              <Button
                look={said.drifts.length === 0 ? 'primary' : 'default'}
                onClick={() => void proposing.propose(said, relocated)}
              >
                Propose three palettes
              </Button>
            )}
          </div>
          <Proposed
            proposing={proposing}
            kindOf={kindOf}
            onTake={(palette) => {
              step(withPalette(said, palette))
              proposing.forget()
            }}
          />
        </>
      )}
      <h2>What would help it</h2>
      <Answered of={[tray]} waiting="Every kind is tried here…">
        {(found) => <Tray tray={found} editor={editor} />}
      </Answered>
    </>
  )
}

/** The kinds of the scheme, each to be wanted, kept out or taken out. */
function Chosen({
  editor: { said, step },
  kindOf,
  inHand,
}: Pick<Props, 'editor' | 'kindOf'> & { inHand: readonly InHandView[] }) {
  const canChange = useCanChange()
  const kinds = kindsOf(said)
  const { locked = [], barred = [] } = said.wishes
  return (
    <>
      <h2>{counted(kinds.length, 'kind')} chosen</h2>
      {kinds.length === 0 && <p className="soft">None yet: let some be proposed, or take them from below.</p>}
      <ul className="rework-list" aria-label="Kinds of this scheme">
        {kinds.map((k) => (
          <li key={k.botanical} className="rework-row">
            <span>
              <KindName of={kindOf.get(k.botanical) ?? k} isShort />{' '}
              <small>
                {k.count}
                {k.drifts > 1 && ` in ${k.drifts} groups`},{' '}
                {sourcesWords(
                  k.count,
                  inHand.find((h) => h.botanical === k.botanical),
                )}
                {!kindOf.has(k.botanical) && ' · no longer in the plant library'}
              </small>
            </span>
            {canChange && (
              <span className="row">
                <label>
                  <input
                    type="checkbox"
                    checked={locked.includes(k.botanical)}
                    onChange={(e) =>
                      step({
                        ...said,
                        wishes: withWish(said.wishes, k.botanical, e.target.checked ? 'locked' : null),
                      })
                    }
                  />{' '}
                  keep
                </label>
                <Button
                  size="small"
                  look="text"
                  aria-label={`Take ${k.botanical} out`}
                  onClick={() => step(withoutKind(said, k.botanical))}
                >
                  Out
                </Button>
              </span>
            )}
          </li>
        ))}
      </ul>
      {barred.length > 0 && (
        <p>
          <small>
            Kept out:{' '}
            {barred.map((b) => (
              <Button
                key={b}
                size="small"
                look="link"
                disabled={!canChange}
                title="Let it in again"
                onClick={() => step({ ...said, wishes: withWish(said.wishes, b, null) })}
              >
                {b}
              </Button>
            ))}
          </small>
        </p>
      )}
    </>
  )
}

const MOST_SHOWN = 14

function Tray({ tray, editor: { said, step } }: { tray: TrayView; editor: SchemeEditor }) {
  const canChange = useCanChange()
  const [all, setAll] = useState(false)
  const shown = all ? tray.candidates : tray.candidates.slice(0, MOST_SHOWN)
  if (tray.candidates.length === 0)
    return <p className="soft">No kind that is known here would do well in a quarter of this place.</p>
  return (
    <>
      <ul className="rework-list" aria-label="Kinds that would do well here">
        {shown.map(({ candidate: { taxon, from, fit, price, most }, count, fillsWeeks, brings, gain }) => (
          <li key={taxon.botanical} className="rework-row">
            <span>
              <KindName of={taxon} />
            </span>
            {canChange && (
              <span className="row">
                <Button
                  size="small"
                  aria-label={`Take ${count} ${taxon.common}`}
                  onClick={() => step(withKind(said, taxon, count, from))}
                >
                  Take {count}
                </Button>
                <Button
                  size="small"
                  look="text"
                  aria-label={`Keep ${taxon.common} out`}
                  onClick={() => step({ ...said, wishes: withWish(said.wishes, taxon.botanical, 'barred') })}
                >
                  Never
                </Button>
              </span>
            )}
            <small>
              {[
                from !== 'library' && `${most} ${sourceWords[from]}`,
                fit < 0.95 && `suits it to ${Math.round(100 * fit)} in a hundred`,
                fillsWeeks.length > 0 && `${counted(fillsWeeks.length, 'bare week')} filled`,
                ...brings.map((b) => bringsWords[b]),
                price !== null && price > 0 && `${moneyWords(price)} each`,
                gain < 0 && 'more trouble than it brings',
              ]
                .filter(Boolean)
                .join(' · ') || 'more of what is there'}
            </small>
          </li>
        ))}
      </ul>
      {tray.candidates.length > MOST_SHOWN && (
        <Button size="small" look="link" onClick={() => setAll(!all)}>
          {all ? 'Only the best' : `All ${tray.candidates.length}`}
        </Button>
      )}
    </>
  )
}
