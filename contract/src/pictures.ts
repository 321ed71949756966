import { planMetre } from '@border/core'
import { z } from 'zod'
import { gardenPath, head, id, keeper, shortText } from './basics.ts'
import { reads, sendsFile, writes } from './endpoint.ts'

const picturePoint = z.tuple([z.number().min(0).max(20_000), z.number().min(0).max(20_000)]).readonly()
const planPoint = z.tuple([planMetre, planMetre]).readonly()
const tie = z.object({ px: picturePoint, at: planPoint })
const lengthM = z.number().min(0.01).max(2000)
/** Clockwise. */
const turned = z.number().min(-360).max(360)

/** Points of one picture that are marked. */
const MOST_MARKS = 24
const laying = z.discriminatedUnion('how', [
  z.object({ how: z.literal('two points'), a: tie, b: picturePoint, lengthM, turnDeg: turned }),
  z.object({ how: z.literal('points on the plan'), ties: z.array(tie).max(MOST_MARKS).readonly() }),
  z
    .object({
      how: z.literal('tapes between points'),
      marks: z.array(picturePoint).max(MOST_MARKS).readonly(),
      tapes: z
        .array(
          z.object({
            from: z.number().int().min(0).max(MOST_MARKS),
            to: z.number().int().min(0).max(MOST_MARKS),
            metres: lengthM,
          }),
        )
        .max(300)
        .readonly(),
      at: planPoint,
      bearingDeg: turned,
    })
    .refine(({ marks, tapes }) => tapes.every((t) => t.from < marks.length && t.to < marks.length), {
      path: ['tapes'],
      error: 'go between points that are marked',
    })
    .refine(({ tapes }) => tapes.every((t) => t.from !== t.to), {
      path: ['tapes'],
      error: 'go from one point to another',
    }),
])

const said = {
  name: shortText,
  /** Null while it is not laid. */
  laying: laying.nullable(),
  /** How strongly it shows, 1 for as it is. */
  strength: z.number().min(0.05).max(1),
  isShown: z.boolean(),
}
const picture = z.strictObject({
  id,
  ...said,
  width: z.number(),
  height: z.number(),
  by: z.string().nullable(),
})
/** A scan or photo that lies under the plan. */
export type PictureView = z.infer<typeof picture>

const pictures = `${gardenPath}/plan/pictures` as const
const one = `${pictures}/:pictureId` as const

/** Scans and photos under the plan. */
export const pictureEndpoints = {
  list: reads(pictures, keeper, { answer: z.array(picture), restsOn: ['pictures'] }),
  add: writes(pictures, head, {
    body: z.object({ id, name: shortText }),
    takesFile: true,
    /** The one that is there, where the same picture was added before. */
    answer: z.strictObject({ pictureId: id }),
  }),
  picture: sendsFile(`${one}/file`, keeper, 'image/jpeg'),
  amend: writes(`${one}/amend`, head, { body: z.object(said).partial(), sees: picture }),
  withdraw: writes(`${one}/withdraw`, head),
  restore: writes(`${one}/restore`, head),
}
