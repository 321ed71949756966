import { capitalised, listed, quarterHours, type GrownOver } from '@border/core'

/** An hour's difference is told anew. */
const TOLD_ANEW_HOURS = 1

/** What is otherwise than in the year that was told before. */
export function newIn({ years, overtopped, shaded }: GrownOver, before: GrownOver | undefined): GrownOver {
  const was = (o: GrownOver['overtopped'][number]) =>
    before?.overtopped.find(
      (b) => b.below.botanical === o.below.botanical && b.above.botanical === o.above.botanical,
    )
  const had = (s: GrownOver['shaded'][number]) =>
    before?.shaded.find((b) => b.taxon.botanical === s.taxon.botanical)
  return {
    years,
    overtopped: overtopped.filter((o) => was(o)?.plants !== o.plants),
    shaded: shaded.filter((s) => (had(s)?.with ?? Infinity) - s.with >= TOLD_ANEW_HOURS),
  }
}

/** Kinds that are told of one by one. */
const MOST_TOLD = 3

/** `Butterfly bush stands over 3 of 9 catmint. It takes 2 h of sun from catmint (6 h, then 4 h).` */
export function overWords({ overtopped, shaded }: GrownOver): string {
  const over = overtopped
    .slice(0, MOST_TOLD)
    .map((o) => `${o.above.common} over ${o.plants} of ${o.of} ${o.below.common}`)
  const sun = shaded
    .slice(0, MOST_TOLD)
    .map(
      (s) =>
        `${s.taxon.common} has ${quarterHours(s.with)} of sun in place of ${quarterHours(s.without)}${s.by.length > 0 ? `, for ${listed(s.by.slice(0, 2).map((t) => t.common))}` : ''}${s.with < s.taxon.lightMinHours && s.without >= s.taxon.lightMinHours ? ', less than it wants' : ''}`,
    )
  return [
    over.length > 0 ? `Grown over: ${over.join(', ')}. ` : '',
    sun.length > 0 ? `${capitalised(sun.join('; '))}.` : '',
  ].join('')
}
