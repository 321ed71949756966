import type { PotView } from '@border/contract'
import { dayMonth } from '@border/core'
import { useGardenContext } from '../frame/gardenContext.ts'
import { shortDayMonth } from '../frame/words.ts'
import { litresText } from './potWords.ts'

/** Liquid feeds that are named before the rest is counted. */
const SHOWN = 4

/** How a container is fed through the season that comes. */
export function Feeding({ of: { feeding } }: { of: PotView }) {
  const { today } = useGardenContext()
  if (!feeding) return null
  const { slow, liquid, lastOn, nitrate, millilitres, litres } = feeding
  return (
    <section>
      <h3>Feed</h3>
      {slow === null && liquid.length === 0 ? (
        <p>Nothing in it is fed: it flowers and lasts the better for it.</p>
      ) : (
        <>
          {liquid.length > 0 && (
            <>
              <p>
                With the watering, {Math.round(millilitres)} ml of liquid feed in {litresText(litres)}, on
                moist mix only:
              </p>
              <ul className="plain-list">
                {liquid.slice(0, SHOWN).map((l) => (
                  <li key={l.on}>
                    {shortDayMonth(l.on)}: {l.what}
                  </li>
                ))}
              </ul>
            </>
          )}
          {liquid.length > SHOWN && (
            <p className="soft">
              And so on, {liquid.length} times in all; the last by {lastOn && dayMonth(lastOn)}, so that
              growth is hard before frost.
            </p>
          )}
          {slow && (
            <p>
              Or mix in {Math.round(slow.grams)} g of a slow feed of {slow.lifeDays} days{' '}
              {slow.mixedInOn > today ? `on ${dayMonth(slow.mixedInOn)}` : 'now'}: here it is spent between{' '}
              {dayMonth(slow.spentFrom)} and {dayMonth(slow.spentTo)}.
            </p>
          )}
        </>
      )}
      {nitrate && liquid.length > 0 && (
        <p className="soft">
          From {dayMonth(nitrate.from)} to {dayMonth(nitrate.to)} the mix is usually under 10 °C: ammonium and
          urea wait for warmth, only nitrate feeds.
        </p>
      )}
      <small className="soft">Rates as labels usually give them: the label in your hand comes first.</small>
    </section>
  )
}
