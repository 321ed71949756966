export { CANONICAL_UNITS, type Units } from './units.ts'
export { areCanonical, written } from './written.ts'
export { isAskedUnit, quantityShown, quantityTyped, unitBeside, unitSpoken, type AskedUnit } from './typed.ts'
