import type { FillView } from '@border/contract'
import type { ComponentName, FillEnd, FillSeason } from '@border/core'
import type { Db } from '../database/connect.ts'

/** A fill as it is kept. */
export interface Fill {
  id: string
  containerId: string
  name: string
  season: FillSeason
  filledOn: string
  emptiedOn: string | null
  mix: { name: ComponentName; parts: number }[]
  renewed: number
  endedBy: FillEnd | null
  endedNote: string | null
  note: string | null
}

/** Fills of a garden's containers, latest first. */
export const listFills = (db: Db, gardenId: string): Promise<Fill[]> =>
  db('fills')
    .where({ garden_id: gardenId, withdrawn_at: null })
    .orderBy('filled_on', 'desc')
    .select<Fill[]>(
      'id',
      'container_id as containerId',
      'name',
      'season',
      'filled_on as filledOn',
      'emptied_on as emptiedOn',
      'mix',
      'renewed',
      'ended_by as endedBy',
      'ended_note as endedNote',
      'note',
    )

type Stay = FillView['plants'][number] & { containerId: string }

/** What has stood in a garden's containers, and when: an end is the day it left or was seen to live no longer. */
export async function listStaysInContainers(db: Db, gardenId: string): Promise<Stay[]> {
  const { rows } = await db.raw<{ rows: Stay[] }>(
    `select p.id as "plantingId", p.tag, t.botanical, p.planted_count as count, p.role, s.place_id as "containerId",
            s.from_date as "from", least(s.to_date, gone.on_date) as until
     from planting_sites s
     join plantings p on p.id = s.planting_id and p.withdrawn_at is null
     join taxa t on t.id = p.taxon_id
     join features f on f.id = s.place_id and f.kind = 'container'
     left join lateral (
       select min(on_date) as on_date from planting_events e
       where e.planting_id = p.id and e.withdrawn_at is null and e.living = 0
     ) gone on true
     where s.garden_id = ? and s.withdrawn_at is null
     order by p.tag`,
    [gardenId],
  )
  return rows
}
