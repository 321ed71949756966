import { LOOPBACK, type Listening } from '@border/server/listening'
import { createServer } from 'node:net'

const TRIED = 200
const LAST_PORT = 65_535

/** Where what a process begins looks for ports: two checks on one machine keep apart. */
export const firstPortOf = (pid: number): number => 20_000 + (pid % 500) * 20

/** On loopback, at a port or the next that nobody listens on. */
export async function freeOnLoopback(from: number): Promise<Listening> {
  const last = Math.min(from + TRIED - 1, LAST_PORT)
  for (let port = from; port <= last; port++) {
    const at = { host: LOOPBACK, port }
    if (await isFree(at)) return at
  }
  throw new Error(`No free port from ${from} to ${last} on ${LOOPBACK}.`)
}

/** @throws {Error} where nothing could ever listen: an address of another machine, a port one may not have */
export const isFree = ({ host, port }: Listening) =>
  new Promise<boolean>((resolve, reject) => {
    const probe = createServer()
    probe.once('error', (error: NodeJS.ErrnoException) =>
      error.code === 'EADDRINUSE'
        ? resolve(false)
        : reject(new Error(`Nothing can be served on ${host}:${port}: ${error.message}.`)),
    )
    probe.listen(port, host, () => probe.close(() => resolve(true)))
  })
