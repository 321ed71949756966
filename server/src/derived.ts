import { potsRestOn, whatIsKnown, type Aspect, type Versions } from '@border/contract'
import { codeVersion } from './codeVersion.ts'
import { hashOf } from './hashOf.ts'
import type { GardenReader } from './reader.ts'
import { findKept, keepLatest } from './store/computed.ts'
import { UnderWay } from './underWay.ts'

/**
 * Everything that is worked out of a garden and kept, with the aspects it is made from. A view is kept under exactly these and
 * the version of the code; one that reads more must name it here, and a test holds every view to what it names.
 */
export const views = {
  light: ['plan', 'plantings', 'library'],
  /** Asked with what is suspected of the ground. */
  spots: ['plan', 'plantings', 'climate', 'library', 'decisions', 'jobs'],
  openings: ['plan', 'plantings', 'climate', 'library'],
  ahead: ['plan', 'plantings', 'climate', 'library'],
  whatIfs: ['plan', 'plantings', 'climate', 'library'],
  explanations: ['plan', 'readings'],
  /** What the points of all places, or of one place, offer. */
  sites: whatIsKnown,
  record: whatIsKnown,
  bloom: whatIsKnown,
  /** Light at the rims of containers. */
  potLight: ['plan'],
  /** Asked with the day. */
  containers: potsRestOn,
  /** Asked with a container and the day. */
  potSpots: ['plan', 'plantings', 'library'],
  line: [...potsRestOn, 'decisions'],
  diagnosis: whatIsKnown,
  walk: whatIsKnown,
  assessment: [...whatIsKnown, 'decisions', 'jobs', 'prices'],
  successions: [...whatIsKnown, 'jobs'],
  /** What carrying a scheme out comes to. */
  carriedOut: [...whatIsKnown, 'reworks', 'jobs', 'bench', 'decisions', 'rules', 'prices'],
  /** The open work that the rules ask for: kept as jobs. */
  care: ['plan', 'plantings', 'climate', 'rules', 'record', 'library', 'decisions', 'jobs', 'fills'],
  /** The days of the open jobs: kept as their sittings, for all gardens of a crew together. */
  schedule: ['climate', 'jobs', 'crew'],
} as const satisfies Record<string, readonly Aspect[]>
export type View = keyof typeof views

/**
 * What must follow when an aspect of a garden changes, and how soon: `now` before whoever changed it is answered, `soon` a
 * little later, once for many changes. Light, assessment and the record follow by themselves: they are worked out when they
 * are next asked for. What is not named here needs nothing.
 */
export const entails: Readonly<Partial<Record<Aspect, { what: 'care' | 'schedule'; when: 'now' | 'soon' }>>> =
  {
    plan: { what: 'care', when: 'now' },
    plantings: { what: 'care', when: 'now' },
    fills: { what: 'care', when: 'now' },
    climate: { what: 'care', when: 'now' },
    rules: { what: 'care', when: 'now' },
    library: { what: 'care', when: 'soon' },
    // Signs make work; a walk is many small looks.
    record: { what: 'care', when: 'soon' },
    decisions: { what: 'care', when: 'now' },
    jobs: { what: 'schedule', when: 'now' },
    crew: { what: 'schedule', when: 'now' },
  }

/** The name a view is kept under, as a garden stands: its aspects, the code, and what it was asked with. */
export const keyOf = (view: View, gardenId: string, versions: Versions, asked: unknown): string =>
  hashOf([view, codeVersion, gardenId, views[view].map((a) => versions[a]), asked])

/** What a view is kept for, however the garden stands: the latest takes the place of the one before. */
const viewOf = (gardenId: string, [view, asked]: AskedView): string => hashOf([view, gardenId, asked])

/** A view, with what it is asked with. */
export type AskedView = readonly [view: View, asked: unknown]

/**
 * A view found, or worked out and kept for every process. Whoever asks for what is being worked out already waits for it with the
 * others; it is given up when none of them waits any more.
 *
 * @param madeFrom views that it is likely to be worked out from: looked for with it, in one question
 */
export async function derive<T>(
  reader: GardenReader,
  wanted: AskedView,
  work: () => Promise<T>,
  madeFrom: readonly AskedView[] = [],
): Promise<T> {
  const versions = await reader.versions()
  const nameOf = ([v, a]: AskedView) => keyOf(v, reader.garden.id, versions, a)
  const key = nameOf(wanted)
  return (await underWay.join(key, () => foundOrMade(reader, wanted, key, work, madeFrom.map(nameOf)))) as T
}

async function foundOrMade<T>(
  { db, garden, kept }: GardenReader,
  view: AskedView,
  key: string,
  work: () => Promise<T>,
  madeFrom: readonly string[],
): Promise<T> {
  if (!kept.known.has(key)) {
    const wanted = [key, ...madeFrom].filter((k) => !kept.known.has(k))
    const found = await findKept(db, wanted)
    for (const k of wanted) kept.known.set(k, found.get(k))
  }
  const known = kept.known.get(key)
  if (known !== undefined) return known as T
  kept.atWork++
  try {
    const result = await work()
    kept.known.set(key, result)
    kept.fresh.push({ hash: key, viewOf: viewOf(garden.id, view), result })
    return result
  } finally {
    kept.atWork--
    // What one view was made from is kept with it, in one statement.
    if (kept.atWork === 0) await keepLatest(db, kept.fresh.splice(0))
  }
}

/** What this process is working out just now. */
const underWay = new UnderWay<unknown>()
