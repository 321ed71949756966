import { vi } from 'vitest'
import { run } from '../run.ts'

export interface Ran {
  status: number
  stdout: string
  stderr: string
}

/** `./border` with these arguments, run here rather than in a process of its own. */
export async function border(...args: string[]): Promise<Ran> {
  const ran = { stdout: '', stderr: '' }
  const kept = (['stdout', 'stderr'] as const).map((name) =>
    vi.spyOn(process[name], 'write').mockImplementation((text) => {
      ran[name] += String(text)
      return true
    }),
  )
  try {
    return { status: await run(args), ...ran }
  } finally {
    kept.forEach((spy) => spy.mockRestore())
  }
}
