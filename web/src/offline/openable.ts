/** A database of the browser could not be opened, or not in time. */
class NotOpen extends Error {}

/**
 * A database of the browser, which may be denied, full, or held by a page of an older version: nobody waits longer for it than a
 * moment, and whoever comes after that not at all. It is there for all once it opens.
 */
export class Openable<Db> {
  private opening: Promise<Db> | undefined
  private opened: Db | undefined
  private isLate = false

  /** @param limitMs that anyone waits */
  constructor(
    private readonly open: () => Promise<Db>,
    private readonly limitMs: number,
  ) {}

  /** @throws where it is not open in time, or cannot be */
  async get(): Promise<Db> {
    if (this.opened) return this.opened
    const opening = this.eventually()
    if (this.isLate) throw new NotOpen()
    let timer: ReturnType<typeof setTimeout> | undefined
    const limit = new Promise<never>((_, reject) => {
      timer = setTimeout(() => {
        this.isLate = true
        reject(new NotOpen())
      }, this.limitMs)
    })
    try {
      return await Promise.race([opening, limit])
    } finally {
      clearTimeout(timer)
    }
  }

  /** However long it takes. @throws where it cannot be opened; asked again it is tried again */
  eventually(): Promise<Db> {
    this.opening ??= this.tried()
    // Who waits for it hears of it.
    this.opening.catch(() => {})
    return this.opening
  }

  private async tried(): Promise<Db> {
    try {
      this.opened = await this.open()
      this.isLate = false
      return this.opened
    } catch (error) {
      this.opening = undefined
      throw error
    }
  }

  /** It was closed: by the browser, or for a page of a later version. */
  closed(): void {
    this.opened = undefined
    this.opening = undefined
  }
}
