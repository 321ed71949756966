import { NO_EDITS, ownRule, type OwnRule, type RuleAdjustment, type RuleEdits } from '@border/core'
import type { Db } from '../database/connect.ts'

/** What a garden changes of the rules of care, and its own. */
export async function findRuleEdits(db: Db, gardenId: string): Promise<RuleEdits> {
  const rows = await db('garden_rules')
    .where({ garden_id: gardenId })
    .orderBy('rule_id')
    .select<
      { rule_id: string; is_on: boolean | null; adjusted: RuleAdjustment | null; own: OwnRule | null }[]
    >()
  if (rows.length === 0) return NO_EDITS
  return {
    switched: Object.fromEntries(rows.flatMap((r) => (r.is_on === null ? [] : [[r.rule_id, r.is_on]]))),
    adjusted: Object.fromEntries(rows.flatMap((r) => (r.adjusted ? [[r.rule_id, r.adjusted]] : []))),
    own: rows.flatMap((r) => (r.own ? [ownRule(r.rule_id, r.own)] : [])),
  }
}

/** What a garden changes of a rule; what is absent stays. */
export interface RuleChange {
  isOn?: boolean | undefined
  adjusted?: RuleAdjustment | null | undefined
  own?: OwnRule | undefined
}

/** Keeps a garden’s change of a rule over what it had changed before. */
export async function saveRuleChange(
  db: Db,
  gardenId: string,
  personId: string,
  ruleId: string,
  change: RuleChange,
): Promise<void> {
  const columns = {
    ...(change.isOn !== undefined && { is_on: change.isOn }),
    ...(change.adjusted !== undefined && { adjusted: change.adjusted && JSON.stringify(change.adjusted) }),
    ...(change.own !== undefined && { own: JSON.stringify(change.own) }),
    person_id: personId,
    changed_at: db.fn.now(),
  }
  await db('garden_rules')
    .insert({ garden_id: gardenId, rule_id: ruleId, ...columns })
    .onConflict(['garden_id', 'rule_id'])
    .merge(Object.keys(columns))
}

/** The rules of a garden's own, as they were said, by id. */
export async function listOwnRules(db: Db, gardenId: string): Promise<Map<string, OwnRule>> {
  const rows = await db('garden_rules')
    .where({ garden_id: gardenId })
    .whereNotNull('own')
    .select<{ rule_id: string; own: OwnRule }[]>('rule_id', 'own')
  return new Map(rows.map((r) => [r.rule_id, r.own]))
}

/** Takes a rule of a garden's own away. False where there is none. */
export const removeOwnRule = async (db: Db, gardenId: string, ruleId: string): Promise<boolean> =>
  (await db('garden_rules').where({ garden_id: gardenId, rule_id: ruleId }).whereNotNull('own').del()) > 0
