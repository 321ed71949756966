import { reworkEndpoints } from '@border/contract'
import type { Response } from 'express'
import { route, type Route } from '../routing.ts'
import type { ComputePool } from '../work/compute.ts'
import { schemeToDraw } from '../work/paper.ts'
import type { SchemeToDraw } from '../work/paperTasks.ts'

/** Schemes as files to be printed and sent. */
export const paperRoutes = (pool: ComputePool): Route[] => [
  route(reworkEndpoints.schemePdf, {
    handle: async ({ read, today, params, query: { on = today, years, paper, prices } }, { res }) => {
      const { task, totals } = await schemeToDraw(read, pool, params)
      const pdf = await pool.run('schemePdf', {
        task,
        moment: { on, years },
        paper,
        totals: prices === 'yes' ? await totals() : undefined,
      })
      sent(res, 'application/pdf', task, 'pdf').send(Buffer.from(pdf))
    },
  }),
  route(reworkEndpoints.schemePlan, {
    handle: async ({ read, params, query: { paper } }, { res }) => {
      const { task } = await schemeToDraw(read, pool, params)
      const svg = await pool.run('schemePlanSvg', { task, paper })
      sent(res, 'image/svg+xml; charset=utf-8', task, 'svg').send(svg)
    },
  }),
  route(reworkEndpoints.schemeView, {
    handle: async ({ read, today, params, query: { on = today, years, side } }, { res }) => {
      const { task } = await schemeToDraw(read, pool, params)
      const svg = await pool.run('schemeViewSvg', { task, moment: { on, years }, side })
      sent(res, 'image/svg+xml; charset=utf-8', task, 'svg').send(svg)
    },
  }),
]

/** A file under the name of what it is of, in letters that every system takes. */
const sent = (res: Response, type: string, { place, scheme }: SchemeToDraw, ending: string): Response =>
  res.type(type).set('content-disposition', `attachment; filename="${slug(`${place} ${scheme}`)}.${ending}"`)

const slug = (words: string): string =>
  words
    .normalize('NFKD')
    .replace(/[^a-zA-Z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase() || 'scheme'
