import {
  capitalised,
  careRules,
  taxonCare,
  type Climate,
  type IsoDate,
  type RuleHere,
  type Schools,
  type Taxon,
} from '@border/core'
import { useMemo } from 'react'
import { shortDate } from '../frame/words.ts'

const winterWords = {
  hardy: 'Hardy in this garden’s winters.',
  'at risk': 'At the limit of its hardiness here.',
  tender: 'Not hardy in this garden’s winters.',
  'no winter':
    'It wants a winter to rest in, and has none here: it does not live long, and no dates can be told.',
}

/** When each kind of work is right for a kind of plant in this garden, with the sentence behind every date. */
export function CareHere({
  taxon,
  climate,
  schools,
  on,
}: {
  taxon: Taxon
  climate: Climate
  schools: Schools
  on: IsoDate
}) {
  const care = useMemo(
    () => taxonCare(taxon, { climate, place: 'bed', schools, lateDays: 0, rules: careRules }, on),
    [taxon, climate, schools, on],
  )
  const shown = care.rules.filter((r) => r.school?.followed !== false && r.windows[0]?.season !== 'any time')
  return (
    <section>
      <h2>Its care here</h2>
      <p className="soft">
        {winterWords[care.winter]} The coming window of each rule, by the usual year of this place; in a bed.
      </p>
      <Rules rules={shown.filter((r) => r.yearly)} />
      <h3>When it is wanted</h3>
      <Rules rules={shown.filter((r) => !r.yearly)} />
      {care.never.map((n) => (
        <p key={n.why}>
          <b>Never {n.operation}.</b> {n.why}
        </p>
      ))}
    </section>
  )
}

/** Rules with their coming windows, soonest first; those that have none here come last. */
function Rules({ rules }: { rules: readonly RuleHere[] }) {
  const opens = (r: RuleHere) => r.windows[0]?.earliest ?? '9'
  return rules
    .toSorted((a, b) => (opens(a) < opens(b) ? -1 : 1))
    .map((r) => {
      const [window] = r.windows
      return (
        <details key={r.id} className="care-rule">
          <summary>
            <b>{capitalised(r.verb)}</b>{' '}
            {window
              ? `${shortDate(window.earliest)} to ${shortDate(window.latest)}, best ${shortDate(window.bestFrom)} to ${shortDate(window.bestTo)}`
              : 'no window in the usual year here'}
            <span className="soft">{r.does}</span>
          </summary>
          <p>{r.why}</p>
          <ul className="plain-list">
            {window
              ? Object.values(window.why).map((w) => <li key={w}>{w}</li>)
              : r.none.map((n) => <li key={n}>{n}</li>)}
          </ul>
          <p className="soft">
            If missed: {r.missed} {r.school && `The other school: ${r.school.other}.`}
          </p>
        </details>
      )
    })
}
