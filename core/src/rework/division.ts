import { daysBetween, type IsoDate } from '../dates/index.ts'
import type { Planting } from '../garden/index.ts'
import type { DivideHow, Taxon } from '../plants/index.ts'
import { centimetres } from '../words/index.ts'
import { sizeAt } from './growth.ts'

/** A clump that is to be divided. Its shoots counted tell more than its size. */
export interface Clump {
  taxon: Pick<Taxon, 'divideHow' | 'divideYears' | 'moveEase'>
  plants: number
  /** Across one of them, metres. */
  acrossM?: number | undefined
  /** Shoots, buds or noses of one of them. */
  shoots?: number | undefined
  /** Years since it was planted or last divided. */
  years: number
  /** Whether it is done in its season. */
  inSeason: boolean
}

/** What comes of a division, with the arithmetic to be shown. */
export interface Division {
  pieces: number
  /** Those that are likely to live. */
  living: number
  working: readonly string[]
}

/** Why a clump is not divided, or cannot be reckoned. */
export type DivisionAnswer =
  { ok: true; division: Division } | { ok: false; why: 'never divided' | 'not measured' | 'too small' }

/**
 * By how a clump comes apart: side of a piece that grows on well, metres; shoots it wants; and of a hundred pieces how many live. Working
 * figures from the usual advice of three to five shoots a piece.
 */
const pieceOf: Record<DivideHow, { sideM: number; shoots: number; live: number }> = {
  'pull apart': { sideM: 0.1, shoots: 3, live: 0.95 },
  cut: { sideM: 0.12, shoots: 4, live: 0.88 },
  saw: { sideM: 0.15, shoots: 5, live: 0.8 },
  rhizome: { sideM: 0.1, shoots: 2, live: 0.92 },
  offsets: { sideM: 0.08, shoots: 1, live: 0.92 },
}
/** The woody middle of a clump past its time is thrown away: a third of it. */
const OLD_MIDDLE = 1 / 3
/** Of what is divided out of season, and of what resents it, fewer live. Working figures. */
const OUT_OF_SEASON = 0.75
const RESENTS = { easy: 1, fair: 0.95, poor: 0.85 }

/** Pieces that a clump gives, and how many of them are likely to live. */
export function divisionOf({ taxon, plants, acrossM, shoots, years, inSeason }: Clump): DivisionAnswer {
  const { divideHow, divideYears, moveEase } = taxon
  if (!divideHow || !divideYears) return { ok: false, why: 'never divided' }
  const { sideM, shoots: each, live } = pieceOf[divideHow]
  const isOld = years > divideYears[1]
  const kept = isOld ? 1 - OLD_MIDDLE : 1
  const middle = isOld ? ', less a third for the old middle' : ''
  let perPlant: number
  let working: string
  if (shoots !== undefined) {
    perPlant = Math.floor((shoots * kept) / each + 1e-9)
    working = `${shoots} shoots${middle}, ${each} to a piece: ${perPlant}`
  } else if (acrossM !== undefined) {
    const areaM2 = Math.PI * (acrossM / 2) ** 2 * kept
    perPlant = Math.floor(areaM2 / sideM ** 2 + 1e-9)
    working = `${centimetres(acrossM)} across${middle}, a piece of ${centimetres(sideM)} by ${centimetres(sideM)}: ${perPlant}`
  } else return { ok: false, why: 'not measured' }
  if (perPlant < 2) return { ok: false, why: 'too small' }
  const pieces = perPlant * plants
  const share = live * (inSeason ? 1 : OUT_OF_SEASON) * RESENTS[moveEase]
  const living = Math.floor(pieces * share + 1e-9)
  return {
    ok: true,
    division: {
      pieces,
      living,
      working: [
        plants === 1 ? working : `${working} from each of ${plants}, ${pieces} in all`,
        `of ${pieces} about ${living} live: ${Math.round(100 * share)} in a hundred${inSeason ? '' : ', out of season'}`,
      ],
    },
  }
}

/** Pieces shared out in the order of who wants them; what is over waits on the bench or is given away. */
export function sharedOut(
  pieces: number,
  wanted: readonly { id: string; count: number }[],
): { given: { id: string; count: number }[]; surplus: number } {
  let left = pieces
  const given = wanted.map(({ id, count }) => {
    const some = Math.min(left, count)
    left -= some
    return { id, count: some }
  })
  return { given: given.filter((g) => g.count > 0), surplus: left }
}

/** Of a clump's spread so much is its crown, which is what comes apart: a working figure, until it is lifted and measured. */
const CROWN_SHARE = 0.5

/** What a planting gives that is divided where it stands. */
export interface PlantingDivided {
  answer: DivisionAnswer
  /** Whether its clumps were measured or counted; else they are taken for what they grow to by their age. */
  isMeasured: boolean
  /** Pieces beyond those that are set back: as many as it has plants now. */
  spare: number
}

/** A planting divided in its season. @param measured one of its clumps, by shoots or across */
export function plantingDivided(
  p: Pick<Planting, 'taxon' | 'livingCount' | 'inPlaceSince'>,
  on: IsoDate,
  measured: Pick<Clump, 'shoots' | 'acrossM'> = {},
): PlantingDivided {
  const years = daysBetween(p.inPlaceSince, on) / 365.25
  const isMeasured = measured.shoots !== undefined || measured.acrossM !== undefined
  const answer = divisionOf({
    taxon: p.taxon,
    plants: p.livingCount,
    years,
    inSeason: true,
    ...(isMeasured ? measured : { acrossM: CROWN_SHARE * sizeAt(p.taxon, years).spreadM }),
  })
  return { answer, isMeasured, spare: answer.ok ? Math.max(0, answer.division.living - p.livingCount) : 0 }
}
