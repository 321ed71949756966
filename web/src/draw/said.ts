import type { PlanFeature } from '@border/core'
import { kindFields, type DrawnKind, type Field } from './kinds.ts'

/** What is said of a part of the plan, by the names of its fields, as they are typed: shares in hundredths, bearings as text. */
export type Said = Readonly<Record<string, unknown>>

type Properties = Readonly<Record<string, unknown>>

function deep(p: Properties, name: string): unknown {
  const [outer, inner] = name.split('.') as [string, string?]
  const value = p[outer]
  if (!inner) return value
  // The eaves of a file may be told by their depth alone.
  if (typeof value === 'number') return inner === 'depthM' ? value : undefined
  return (value as Properties | undefined)?.[inner]
}

function typed(field: Field, value: unknown): unknown {
  if (value === undefined || value === null) return undefined
  if (field.type === 'size' && field.unit === '%') return Math.round((value as number) * 1000) / 10
  if (field.type === 'bearings') return (value as number[]).join(', ')
  return value
}

function meant(field: Field, value: unknown): unknown {
  if (value === undefined || value === null || value === '') return undefined
  if (field.type === 'size' && field.unit === '%') return Math.round(value as number) / 100
  if (field.type !== 'bearings') return value
  const bearings = String(value)
    .split(/[,;\s]+/)
    .filter(Boolean)
    .map(Number)
  // What is no bearing is left for the check of the whole to name.
  return bearings.length > 0 ? bearings : undefined
}

/** What is said of a part, as its fields show it. */
export const saidOf = ({ kind, properties }: Pick<PlanFeature, 'kind' | 'properties'>): Said =>
  Object.fromEntries(kindFields[kind as DrawnKind].map((f) => [f.name, typed(f, deep(properties, f.name))]))

/** What a new part of a kind is taken for until somebody says otherwise. */
export const usuallySaid = (kind: DrawnKind): Said =>
  Object.fromEntries(
    kindFields[kind].flatMap((f) => (f.type === 'size' && f.usual !== undefined ? [[f.name, f.usual]] : [])),
  )

/** Properties with one of its fields said otherwise; what no field of the kind is about stays as it was. */
export function withSaid(
  { kind, properties }: Pick<PlanFeature, 'kind' | 'properties'>,
  name: string,
  value: unknown,
): Record<string, unknown> {
  const field = kindFields[kind as DrawnKind].find((f) => f.name === name)!
  const [outer, inner] = name.split('.') as [string, string?]
  const now = meant(field, value)
  if (!inner) return without({ ...properties, [outer]: now })
  const before = properties[outer]
  const parts = typeof before === 'number' ? { depthM: before } : (before as Properties | undefined)
  const group = without({ ...parts, [inner]: now })
  return without({ ...properties, [outer]: Object.keys(group).length > 0 ? group : undefined })
}

const without = (p: Properties): Record<string, unknown> =>
  Object.fromEntries(Object.entries(p).filter(([, v]) => v !== undefined))

/** Properties as they are kept: eaves without a height of their own are at the top of the wall. */
export function completed({
  kind,
  properties,
}: Pick<PlanFeature, 'kind' | 'properties'>): Record<string, unknown> {
  if (kind !== 'building') return properties
  const over = properties.overhang as { depthM?: number; heightM?: number } | number | undefined
  if (typeof over !== 'object') return properties
  if (!over.depthM) return without({ ...properties, overhang: undefined })
  return { ...properties, overhang: { ...over, heightM: over.heightM ?? properties.heightM } }
}
