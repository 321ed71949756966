import { bearingInPicture, type Laying, type MarkTape, type Point } from '@border/core'
import { sideBetween, turned } from '../draw/outline.ts'

/** A point marked in a picture; where it lies on the plan, once that is said. */
export interface Mark {
  px: Point
  at?: Point | undefined
}

export const turnings = ['up is north', 'a north arrow', 'both on the plan', 'by degrees'] as const
export type Turning = (typeof turnings)[number]

/** What is being said of how a picture lies. */
export interface LayingDraft {
  how: 'from above' | 'slanting'
  marks: readonly Mark[]
  /** From the first to the second. */
  lengthM: number | null
  turned: Turning
  /** Foot and tip of the picture's north arrow. */
  arrow: readonly Point[]
  /** Clockwise. */
  turnDeg: number
  known: 'on the plan' | 'by tape'
  /** Between the marks, by `keyOf`. */
  tapes: Readonly<Record<string, number>>
  /** From the first mark to the second, clockwise from north: on the plan so much more as the plan is turned. */
  bearingDeg: number | null
}

export const NEW_LAYING: LayingDraft = {
  how: 'from above',
  marks: [],
  lengthM: null,
  turned: 'up is north',
  arrow: [],
  turnDeg: 0,
  known: 'on the plan',
  tapes: {},
  bearingDeg: null,
}

/** Names a tape between two marks, whichever is said first. */
export const keyOf = (a: number, b: number): string => `${Math.min(a, b)}-${Math.max(a, b)}`

export const tapesOf = ({ tapes, marks }: LayingDraft): MarkTape[] =>
  Object.entries(tapes).flatMap(([key, metres]) => {
    const [from, to] = key.split('-').map(Number) as [number, number]
    return to < marks.length ? [{ from, to, metres }] : []
  })

/** How marks are called: two are A and B, more are numbered. */
export const markName = (how: LayingDraft['how'], i: number): string =>
  how === 'from above' ? 'AB'[i]! : String(i + 1)

type Said = { ok: true; laying: Laying } | { ok: false; asks: string }
const asks = (what: string): Said => ({ ok: false, asks: what })

/** What is said so far; or what to say next. @param northDeg of the plan */
export function layingOf(draft: LayingDraft, northDeg: number): Said {
  return draft.how === 'from above' ? fromAbove(draft, northDeg) : slanting(draft, northDeg)
}

function fromAbove(draft: LayingDraft, northDeg: number): Said {
  const [a, b] = draft.marks
  if (!a || !b)
    return asks(
      a
        ? 'Click a second point, far from the first.'
        : 'Click a point in the picture that you can find in the garden.',
    )
  if (!a.at) return asks('Say where A lies: click it on the plan, or type it.')
  const inPicture = bearingInPicture(a.px, b.px)
  let turnDeg: number
  switch (draft.turned) {
    case 'up is north':
      turnDeg = northDeg
      break
    case 'by degrees':
      turnDeg = draft.turnDeg
      break
    case 'a north arrow': {
      const [foot, tip] = draft.arrow
      if (!foot || !tip)
        return asks(foot ? 'Click the tip of the arrow.' : 'Click the foot of the picture’s north arrow.')
      turnDeg = northDeg - bearingInPicture(foot, tip)
      break
    }
    case 'both on the plan':
      if (!b.at) return asks('Say where B lies: click it on the plan, or type it.')
      turnDeg = sideBetween(a.at, b.at).bearingDeg - inPicture
  }
  const lengthM =
    draft.lengthM ?? (draft.turned === 'both on the plan' && b.at ? sideBetween(a.at, b.at).lengthM : null)
  if (lengthM === null || lengthM <= 0) return asks('Type how far A and B are apart.')
  return {
    ok: true,
    laying: { how: 'two points', a: { px: a.px, at: a.at }, b: b.px, lengthM, turnDeg: turned(turnDeg) },
  }
}

/** Where a length was typed and both points lie on the plan: how far the plan has them apart. */
export function planDiffersM({ marks: [a, b], lengthM, turned: by }: LayingDraft): number | undefined {
  if (by !== 'both on the plan' || lengthM === null || !a?.at || !b?.at) return undefined
  const plan = sideBetween(a.at, b.at).lengthM
  return Math.abs(plan - lengthM) > Math.max(0.02, 0.01 * plan) ? plan : undefined
}

function slanting(draft: LayingDraft, northDeg: number): Said {
  const { marks } = draft
  if (marks.length < 4)
    return asks(`Click four or more points on the ground, no three in a row: ${marks.length} so far.`)
  if (draft.known === 'on the plan') {
    const open = marks.findIndex((m) => !m.at)
    if (open >= 0) return asks(`Say where ${open + 1} lies: click it on the plan, or type it.`)
    return {
      ok: true,
      laying: { how: 'points on the plan', ties: marks.map(({ px, at }) => ({ px, at: at! })) },
    }
  }
  const tapes = tapesOf(draft)
  const least = 2 * marks.length - 3
  if (draft.tapes['0-1'] === undefined) return asks('Measure from 1 to 2 first.')
  if (tapes.length < least)
    return asks(`Between ${marks.length} points ${least} tapes are needed: ${tapes.length} so far.`)
  const { at } = marks[0]!
  if (!at) return asks('Say where 1 lies: click it on the plan, or type it.')
  if (draft.bearingDeg === null) return asks('Say in which direction 2 lies from 1.')
  return {
    ok: true,
    laying: {
      how: 'tapes between points',
      marks: marks.map((m) => m.px),
      tapes,
      at,
      bearingDeg: turned(draft.bearingDeg + northDeg),
    },
  }
}

/** What was said of a picture before, to be put right. */
export function draftOfLaying(laying: Laying | null, northDeg: number): LayingDraft {
  if (!laying) return NEW_LAYING
  switch (laying.how) {
    case 'two points':
      return {
        ...NEW_LAYING,
        marks: [laying.a, { px: laying.b }],
        lengthM: laying.lengthM,
        turned: 'by degrees',
        turnDeg: laying.turnDeg,
      }
    case 'points on the plan':
      return { ...NEW_LAYING, how: 'slanting', marks: laying.ties }
    case 'tapes between points':
      return {
        ...NEW_LAYING,
        how: 'slanting',
        known: 'by tape',
        marks: laying.marks.map((px, i) => ({ px, ...(i === 0 && { at: laying.at }) })),
        tapes: Object.fromEntries(laying.tapes.map((t) => [keyOf(t.from, t.to), t.metres])),
        bearingDeg: turned(laying.bearingDeg - northDeg),
      }
  }
}

/** Without a mark; tapes to those after it go with them. */
export function withoutMark(draft: LayingDraft, i: number): LayingDraft {
  const left = (n: number) => (n > i ? n - 1 : n)
  const tapes = tapesOf(draft).filter((t) => t.from !== i && t.to !== i)
  return {
    ...draft,
    marks: draft.marks.filter((_, n) => n !== i),
    tapes: Object.fromEntries(tapes.map((t) => [keyOf(left(t.from), left(t.to)), t.metres])),
  }
}
