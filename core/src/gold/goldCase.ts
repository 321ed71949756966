import type { SignId } from '../diagnosis/index.ts'
import type { IsoDate } from '../dates/index.ts'
import type { Action } from '../remedies/index.ts'

/** A situation in a garden with what an experienced head gardener would do, and why. */
export interface GoldCase {
  subject: string
  /** The situation in a gardener's words. */
  tells: string
  plant: string
  /** Degrees of latitude: 52 maritime, 42 continental, 33 humid subtropical, -34 Mediterranean, 64 northern. */
  latitude: 52 | 42 | 33 | -34 | 64
  on: IsoDate
  since: IsoDate
  signs: readonly SignId[]
  /** The day of the look; absent: the day of the question. */
  seenOn?: IsoDate
  place?: 'bed' | 'container'
  /** Against what it likes: in the middle of it unless said. */
  light?: 'right' | 'shade' | 'sun' | 'a little over'
  moisture?: 1 | 2 | 3 | 4 | 5
  rating?: number
  living?: number
  planted?: number
  again?: 'yes' | 'no'
  dividedOn?: IsoDate
  /** What is right. */
  right: readonly Action[]
  /** What may be done as well. */
  fine?: readonly Action[]
  /** What would do harm. */
  never?: readonly Action[]
  /** Days within which its best time begins, where that is asked. */
  done?: readonly [from: IsoDate, to: IsoDate]
  /** What the reason must speak of. */
  reason: RegExp
}
