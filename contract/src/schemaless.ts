/** What of the contract needs no schema: with the endpoints' addresses, all that a browser is given of it. */
export * from './address.ts'
export * from './aspects.ts'
export * from './roles.ts'
export * from './seen.ts'
