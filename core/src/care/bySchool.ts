import type { CareRule, RuleMaterial } from './rule.ts'
import { followed, schoolNote, type Schools } from './schools.ts'

/** What a rule has a garden do by its schools: steps and materials, and for each school what the other would do. */
export function bySchool(
  rule: CareRule,
  schools: Schools,
): { steps: string[]; materials: RuleMaterial[]; notes: string[] } {
  const chosen = (rule.bySchool ?? []).map((s) => ({ ...s, choice: followed(schools, s.id) }))
  return {
    steps: chosen.flatMap((s) => s.steps[s.choice] ?? []),
    materials: chosen.flatMap((s) => s.materials?.[s.choice] ?? []),
    notes: [
      ...(rule.school ? [schoolNote(rule.school.id, rule.school.choice)] : []),
      ...chosen.map((s) => schoolNote(s.id, s.choice)),
    ],
  }
}
