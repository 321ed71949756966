import { prepare } from './prepare.ts'

/** Makes the database of DATABASE_URL ready to be served, with `--demo` the demo in it; for who reads none of the server's code. */
await prepare(process.env.DATABASE_URL!, process.argv.includes('--demo'))
