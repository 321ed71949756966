import type { InHandView, PaletteView, SaidWishes, TrayView } from '@border/contract'
import {
  browsers,
  colourSchemes,
  counted,
  listed,
  moneyWords,
  oklchOf,
  type Harmed,
  type Place,
} from '@border/core'
import { useState } from 'react'
import { Button } from '../frame/Button.tsx'
import { Choose } from '../frame/Choose.tsx'
import { useGardenContext } from '../frame/gardenContext.ts'
import { Answered } from '../frame/Answered.tsx'
import { BloomStrip } from './BloomStrip.tsx'
import { Figure } from './Figure.tsx'
import { useProposing, useTray, type Proposing } from './queries.ts'
import { bringsWords, sourcesWords, sourceWords, wishWords } from './reworkWords.ts'
import { kindsOf, withKind, withoutKind, withPalette, withWish, type KindOf } from './schemeDraft.ts'
import type { SchemeEditor } from './useScheme.ts'
import './rework.css'

interface Props {
  place: Place
  editor: SchemeEditor
  kindOf: KindOf
}

/** Which kinds come in: wished for, proposed, and taken from the tray one by one. */
export function KindsPanel({ place, editor, kindOf }: Props) {
  const { view, isHead } = useGardenContext()
  const { said, step } = editor
  const proposing = useProposing(view.garden.id, place.id)
  const tray = useTray(view.garden.id, place.id, said, kindsOf(said))
  return (
    <>
      <Chosen editor={editor} kindOf={kindOf} inHand={tray.data?.inHand ?? []} />
      {tray.data && (
        <>
          <h2>In flower</h2>
          <BloomStrip weeks={tray.data.weeks} flowering={tray.data.flowering} kindOf={kindOf} />
        </>
      )}
      {isHead && (
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
                onClick={() => void proposing.propose(said)}
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
  const { isHead } = useGardenContext()
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
              <span className="taxon">{kindOf.get(k.botanical)?.common ?? k.botanical}</span>{' '}
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
            {isHead && (
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
                disabled={!isHead}
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

const CUSTOMS = [
  { value: 'odd', label: 'odd groups' },
  { value: 'blocks', label: 'large blocks' },
  { value: 'matrix', label: 'a matrix' },
] as const
const SCHEMES = [{ value: '', label: 'any' }, ...colourSchemes.map((s) => ({ value: s, label: s }))]
const HARMED: readonly Harmed[] = ['people', 'cats', 'dogs', 'horses']
/** A hue to begin with, degrees: violet. */
const FIRST_HUE = 300

/** The wishes, one beside the other; what is left empty is not asked. */
function Wishes({ wishes, onSay }: { wishes: SaidWishes; onSay: (wishes: SaidWishes) => void }) {
  const put = (change: Partial<SaidWishes>) => {
    const next = { ...wishes, ...change }
    // What is not asked is not there.
    onSay(Object.fromEntries(Object.entries(next).filter(([, v]) => v !== undefined)) as SaidWishes)
  }
  const toggled = <T extends string>(list: readonly T[] | undefined, one: T): T[] | undefined => {
    const next = list?.includes(one) ? list.filter((o) => o !== one) : [...(list ?? []), one]
    return next.length > 0 ? next : undefined
  }
  const percent = (share: number | undefined) => (share === undefined ? null : Math.round(100 * share))
  const share = (v: number | null) => (v === null ? undefined : v / 100)
  return (
    <div className="rework-wishes">
      <span>No taller than</span>
      <Figure
        label="No taller than, metres"
        value={wishes.tallestM}
        min={0.1}
        max={30}
        step={0.1}
        unit="m"
        onSay={(v) => put({ tallestM: v! })}
      />
      <span>Kinds, at least and at most</span>
      <span className="row">
        <Figure
          label="Kinds at least"
          value={wishes.kinds.least}
          min={1}
          max={wishes.kinds.most}
          onSay={(v) => put({ kinds: { ...wishes.kinds, least: v! } })}
        />
        <Figure
          label="Kinds at most"
          value={wishes.kinds.most}
          min={wishes.kinds.least}
          max={60}
          onSay={(v) => put({ kinds: { ...wishes.kinds, most: v! } })}
        />
      </span>
      <span>Planted in</span>
      <Choose
        label="Planted in"
        value={wishes.drifts}
        options={CUSTOMS}
        onChange={(drifts) => put({ drifts })}
      />
      <span>For no more than</span>
      <Figure
        label="For no more than, money"
        value={wishes.budget === undefined ? null : wishes.budget / 100}
        min={0}
        max={1_000_000}
        canBeEmpty
        onSay={(v) => put({ budget: v === null ? undefined : Math.round(100 * v) })}
      />
      <span>Green in winter, of the ground</span>
      <Figure
        label="Green in winter, per cent of the ground"
        value={percent(wishes.evergreenShare)}
        min={0}
        max={100}
        unit="%"
        canBeEmpty
        onSay={(v) => put({ evergreenShare: share(v) })}
      />
      {(['front', 'middle', 'back'] as const).map((layer) => {
        const words = { front: 'Low plants', middle: 'Middling ones', back: 'Tall ones' }[layer]
        return (
          <label key={layer}>
            <span>{words}, of the ground</span>
            <Figure
              label={`${words}, per cent of the ground`}
              value={percent(wishes.layerShares?.[layer])}
              min={0}
              max={100}
              unit="%"
              canBeEmpty
              onSay={(v) => {
                const { [layer]: _, ...rest } = wishes.layerShares ?? {}
                const next = v === null ? rest : { ...rest, [layer]: v / 100 }
                put({ layerShares: Object.keys(next).length > 0 ? next : undefined })
              }}
            />
          </label>
        )
      })}
      <span>Scented kinds, at least</span>
      <Figure
        label="Scented kinds at least"
        value={wishes.scented ?? null}
        min={0}
        max={30}
        canBeEmpty
        onSay={(v) => put({ scented: v ?? undefined })}
      />
      <span>Kinds for wildlife, at least</span>
      <Figure
        label="Kinds for wildlife at least"
        value={wishes.wildlife ?? null}
        min={0}
        max={30}
        canBeEmpty
        onSay={(v) => put({ wildlife: v ?? undefined })}
      />
      <span>Colours</span>
      <span className="row">
        <Choose
          label="Colours"
          value={wishes.scheme?.kind ?? ''}
          options={SCHEMES}
          onChange={(kind) =>
            put({
              scheme: kind
                ? { kind: kind as (typeof colourSchemes)[number], hue: wishes.scheme?.hue ?? FIRST_HUE }
                : undefined,
            })
          }
        />
        {wishes.scheme && (
          <input
            type="color"
            aria-label="The colour they go by"
            defaultValue="#7d5ba6"
            onBlur={(e) => put({ scheme: { ...wishes.scheme!, hue: Math.round(oklchOf(e.target.value).h) } })}
          />
        )}
      </span>
      <span className="wide row">
        Harmless to
        {HARMED.map((h) => (
          <label key={h}>
            <input
              type="checkbox"
              checked={wishes.harmlessTo?.includes(h) ?? false}
              onChange={() => put({ harmlessTo: toggled(wishes.harmlessTo, h) })}
            />{' '}
            {h}
          </label>
        ))}
      </span>
      <span className="wide row">
        Left alone by
        {browsers.map((b) => (
          <label key={b}>
            <input
              type="checkbox"
              checked={wishes.leftBy?.includes(b) ?? false}
              onChange={() => put({ leftBy: toggled(wishes.leftBy, b) })}
            />{' '}
            {b}
          </label>
        ))}
      </span>
      <span className="wide">
        <label>
          <input
            type="checkbox"
            checked={wishes.noBareWeek ?? false}
            onChange={(e) => put({ noBareWeek: e.target.checked || undefined })}
          />{' '}
          No week of the season without a flower
        </label>
      </span>
      <span className="wide">
        <label>
          <input
            type="checkbox"
            checked={wishes.seasonal ?? false}
            onChange={(e) => put({ seasonal: e.target.checked || undefined })}
          />{' '}
          Annuals and what dies in winter as well
        </label>
      </span>
    </div>
  )
}

function Proposed({
  proposing: { palettes, weeks, answer, failed, isLooking },
  kindOf,
  onTake,
}: {
  proposing: Proposing
  kindOf: KindOf
  onTake: (palette: PaletteView) => void
}) {
  const [first] = palettes
  return (
    <>
      {failed && <p role="alert">{failed}</p>}
      {palettes.map((palette, i) => (
        <Card
          key={i}
          title={`Palette ${'ABC'[i]}`}
          {...{ palette, weeks, kindOf, onTake }}
          more={first && i > 0 ? palette.lack - first.lack : undefined}
        />
      ))}
      {answer?.is === 'no more' && !isLooking && (
        <p className="soft">No more differ from these in three kinds.</p>
      )}
      {answer?.is === 'not worked out' && <p role="alert">{answer.says}</p>}
      {answer?.is === 'conflict' && (
        <section aria-label="Wishes that contradict each other">
          <p role="alert">
            {answer.wishes.length === 1
              ? `Nothing here meets this wish: ${wishWords(answer.wishes[0]!)}.`
              : `These wishes cannot all be met together: ${listed(answer.wishes.map(wishWords))}.`}{' '}
            {answer.giveUp.length === 0
              ? 'Giving up one alone does not help.'
              : 'Without one of them it would be:'}
          </p>
          {answer.giveUp.map(({ wish, palette }, i) => (
            <Card
              key={wish}
              title={`Without ${wishWords(wish)}${i === 0 && answer.giveUp.length > 1 ? ', the least to give up' : ''}`}
              palette={palette}
              weeks={weeks}
              kindOf={kindOf}
              onTake={onTake}
            />
          ))}
        </section>
      )}
    </>
  )
}

/** A palette with what it comes to. @param more points that it lacks above the first */
function Card({
  title,
  palette,
  weeks,
  kindOf,
  more,
  onTake,
}: {
  title: string
  palette: PaletteView
  weeks: readonly string[]
  kindOf: KindOf
  more?: number | undefined
  onTake: (palette: PaletteView) => void
}) {
  const bare = palette.flowering.filter((of) => of.length === 0).length
  return (
    <section className="palette-card" aria-label={title}>
      <div className="spread">
        <b>{title}</b>
        <Button size="small" look="primary" onClick={() => onTake(palette)}>
          Take this
        </Button>
      </div>
      {weeks.length > 0 && <BloomStrip weeks={weeks} flowering={palette.flowering} kindOf={kindOf} />}
      <ul>
        {palette.items.map(({ candidate: { taxon, from }, count, drifts }) => (
          <li key={taxon.botanical}>
            {count} {taxon.common}{' '}
            <small>
              {drifts > 1 && `in ${drifts} groups, `}
              {sourceWords[from]}
            </small>
          </li>
        ))}
      </ul>
      <small>
        {bare === 0 ? 'Something in flower every week' : `${counted(bare, 'week')} without a flower`},{' '}
        {Math.round(100 * palette.evergreenShare)} % green in winter.{' '}
        {palette.price > 0 && `Plants for ${moneyWords(palette.price)}. `}
        {palette.unpriced.length > 0 && `${counted(palette.unpriced.length, 'kind')} without a price. `}
        {more !== undefined && `${Math.max(0, Math.round(more))} points behind the first. `}
        Proved to be the best there is to {(100 * palette.gap).toFixed(1)} % of what a bare place lacks.
      </small>
    </section>
  )
}

const MOST_SHOWN = 14

function Tray({ tray, editor: { said, step } }: { tray: TrayView; editor: SchemeEditor }) {
  const { isHead } = useGardenContext()
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
              <span className="taxon">{taxon.common}</span> <small>{taxon.botanical}</small>
            </span>
            {isHead && (
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
