export { coordinatesTyped, type Coordinates } from './coordinates.ts'
export { CANONICAL_UNITS, M_PER_FOOT, type Units } from './units.ts'
export { areCanonical, written } from './written.ts'
export { isAskedUnit, quantityShown, quantityTyped, unitBeside, unitSpoken, type AskedUnit } from './typed.ts'
