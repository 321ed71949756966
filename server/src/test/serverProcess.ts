import { spawn, type ChildProcess } from 'node:child_process'
import { writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number }
      probe.close(() => resolve(port))
    })
  })

/** The server as a process of its own over a database, which may be killed and begun again at the same address. */
export class ServerProcess {
  private child: ChildProcess | undefined

  private constructor(
    private readonly database: string,
    private readonly port: number,
  ) {}

  static async at(database: string): Promise<ServerProcess> {
    return new ServerProcess(database, await freePort())
  }

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }

  /** Begins it, once more where it has ended; returns when it answers. */
  async begin(): Promise<this> {
    const secret = join(tmpdir(), `border-secret-${this.port}`)
    writeFileSync(secret, 'crash test')
    const { BORDER_SERVER: built } = process.env
    const program = built ? [built] : ['--import', 'tsx', join(import.meta.dirname, '..', 'main.ts')]
    this.child = spawn(process.execPath, program, {
      env: {
        ...process.env,
        DATABASE_URL: this.database,
        SESSION_SECRET_FILE: secret,
        HOST: '127.0.0.1',
        PORT: String(this.port),
        LOG_LEVEL: process.env.FAULTS_LOG ?? 'fatal',
      },
      stdio: 'inherit',
    })
    for (let i = 0; i < 600; i++) {
      const up = await fetch(`${this.url}/api/health`).then(
        (r) => r.ok,
        () => false,
      )
      if (up) return this
      await new Promise((r) => setTimeout(r, 100))
    }
    throw new Error('The server process did not come up')
  }

  /** As a power cut would. */
  kill(): void {
    this.child?.kill('SIGKILL')
  }

  get hasEnded(): boolean {
    return this.child !== undefined && (this.child.exitCode !== null || this.child.signalCode !== null)
  }
}
