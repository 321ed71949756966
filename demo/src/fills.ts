import { recipes } from '@border/core'
import { fillContainer, listPlantings, type Db } from '@border/server'
import type { SketchFill } from './sketch.ts'
import { DEMO_DATE } from './town.ts'

/** Fills the containers of a garden one after another, as somebody would have recorded it. */
export async function insertFills(
  trx: Db,
  who: { gardenId: string; practiceId: string; personId: string },
  fills: Readonly<Record<string, readonly SketchFill[]>>,
  idOf: (pot: string) => string,
): Promise<void> {
  for (const [pot, ofPot] of Object.entries(fills)) {
    const containerId = idOf(pot)
    let before: { fillId: string; plantingIds: string[] } | undefined
    for (const fill of ofPot) {
      const standing = (await listPlantings(trx, who.gardenId, fill.on)).filter((p) =>
        before?.plantingIds.includes(p.id),
      )
      const goes = standing.filter((p) => !fill.keeps?.includes(p.taxon.botanical))
      const answer = await fillContainer(
        trx,
        { ...who, today: DEMO_DATE },
        {
          containerId,
          replaces: before?.fillId ?? null,
          on: fill.on,
          name: fill.name,
          season: fill.season,
          mix: recipes[fill.mix].parts.map((p) => ({ ...p })),
          renewed: fill.renewed,
          endedBy: before ? (fill.ended ?? null) : null,
          ...(fill.note && (before ? { endedNote: fill.note } : { note: fill.note })),
          out: goes.map((p) => ({
            plantingId: p.id,
            to: fill.saves?.includes(p.taxon.botanical) ? ('bench' as const) : ('compost' as const),
          })),
          in: fill.in.map(([taxonBotanical, count, role]) => ({
            taxonBotanical,
            count,
            role,
            source: 'bought' as const,
          })),
        },
      )
      const stays = standing.filter((p) => !goes.includes(p)).map((p) => p.id)
      before = { fillId: answer.fillId, plantingIds: [...stays, ...answer.plantingIds] }
    }
  }
}
