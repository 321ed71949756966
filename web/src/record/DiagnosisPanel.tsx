import type { DiagnosisView } from '@border/contract'
import { capitalised, causeSentence, listed, signWords } from '@border/core'
import { shortDate } from '../frame/words.ts'

type Diagnosed = DiagnosisView['diagnoses'][number]

/** What a planting's signs say: causes in order, what speaks for and against each, and the check that settles it. */
export function DiagnosisPanel({ diagnosis }: { diagnosis: Diagnosed }) {
  const { signs, causes, nothing, seenOn, lightCause } = diagnosis
  return (
    <section>
      <h2>What its signs say</h2>
      <p>
        {signs.length === 0 ? 'No sign was noted' : `${capitalised(listed(signs.map(signWords)))}`} up to{' '}
        {shortDate(seenOn)}.{' '}
        {diagnosis.usual.resting && 'It is in its time of rest, when looking poor is no trouble. '}
        {diagnosis.settling && 'It is still settling in, when a low score says little. '}
        {nothing >= 0.5 && 'Most likely nothing is the matter.'}
      </p>
      {causes.slice(0, 3).map((c) => (
        <article key={c.cause} className="cause">
          <h3>
            {capitalised(c.cause)} <small>{c.odds === 'unlikely' ? 'not likely' : c.odds}</small>
          </h3>
          {(c.cause === 'more sun' || c.cause === 'less sun') &&
            lightCause &&
            agrees(c.cause, lightCause.hours) && <p>On the plan: {causeSentence(lightCause)}</p>}
          {c.speaksFor.length > 0 && (
            <p>
              <b>For:</b>{' '}
              {listed(
                c.speaksFor
                  .slice(0, 4)
                  .map((s) =>
                    s.near === 0
                      ? signWords(s.sign)
                      : `${signWords(s.sign)} (${s.own ? 'and ' : ''}on ${s.near} near it)`,
                  ),
              )}
              . {c.speaksFor[0]!.why}
            </p>
          )}
          {c.against.length > 0 && (
            <p className="soft">
              <b>Against:</b> no {listed(c.against.slice(0, 3).map(signWords))}.
            </p>
          )}
          <p className="soft">
            <b>To settle it:</b> {c.check}
          </p>
        </article>
      ))}
    </section>
  )
}

const agrees = (cause: 'more sun' | 'less sun', hours: number) => (cause === 'more sun') === hours > 0
