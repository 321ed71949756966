import { skills, daysBetween, limits, remark } from '@border/core'
import { z } from 'zod'
import { gardenPath, head, id, isoDay, keeper, shortText, recordedDay } from './basics.ts'
import { reads, writes } from './endpoint.ts'

const dayMinutes = z.number().int().min(0).max(1440)
export const crewPersonRequest = z.object({
  /** Absent: someone new. */
  id: id.optional(),
  name: shortText,
  skills: z.array(z.enum(skills)).max(skills.length),
  /** 0 Sunday to 6 Saturday. */
  minutesByWeekday: z.array(dayMinutes).length(7),
})

const crewPerson = z.strictObject({
  id,
  name: z.string(),
  skills: z.array(z.enum(skills)),
  minutesByWeekday: z.array(z.number()),
})
export type CrewPersonView = z.infer<typeof crewPerson>

const crewView = z.strictObject({
  id,
  name: z.string(),
  /** Gardens it looks after that the person asking belongs to, this one among them. */
  gardens: z.array(z.strictObject({ id, name: z.string(), travelMinutes: z.number() })),
  /** How many more there are. */
  others: z.number(),
  people: z.array(crewPerson),
  absences: z.array(
    z.strictObject({ id, personId: id.nullable(), from: isoDay, to: isoDay, reason: z.string().nullable() }),
  ),
  days: z.array(z.strictObject({ day: isoDay, minutes: z.number() })),
})
export type CrewView = z.infer<typeof crewView>

const crewPath = `${gardenPath}/crew` as const

/** Who works in a garden, and in which others. */
export const crewEndpoints = {
  read: reads(crewPath, keeper, { answer: crewView, restsOn: ['crew', 'members'] }),
  name: writes(crewPath, head, {
    body: z.object({ name: shortText, travelMinutes: z.number().int().min(0).max(600) }),
    sees: z.strictObject({ name: z.string(), travelMinutes: z.number() }),
  }),
  /** The crew of another garden that this one is to share; null: one of its own. */
  share: writes(`${crewPath}/share`, head, {
    body: z.object({ withGardenId: id.nullable() }),
    sees: z.strictObject({ crewId: id }),
  }),
  savePerson: writes(`${crewPath}/people`, head, { body: crewPersonRequest, sees: crewPerson }),
  leave: writes(`${crewPath}/people/:personId/leave`, head, { sees: crewPerson }),
  addAbsence: writes(`${crewPath}/absences`, head, {
    body: z
      .object({
        /** Null: the whole crew. */
        personId: id.nullable(),
        from: recordedDay,
        to: recordedDay,
        reason: remark(120).optional(),
      })
      .refine((a) => a.to >= a.from, 'the last day must not lie before the first')
      .refine(
        (a) => daysBetween(a.from, a.to) <= limits.absenceDays,
        `an absence is of at most ${limits.absenceDays} days; someone who is away for good leaves the crew`,
      ),
  }),
  withdrawAbsence: writes(`${crewPath}/absences/:absenceId/withdraw`, head),
  /** Null: as in any week again. */
  setDay: writes(`${crewPath}/days`, head, {
    body: z.object({ day: recordedDay, minutes: dayMinutes.nullable() }),
    sees: z.strictObject({ minutes: z.number().nullable() }),
  }),
}
