import type { Outbox, OutboxStore, OutboxTransaction, Queued, StoreName } from './queued.ts'

/**
 * What waits to be sent where the browser keeps nothing: gone with the page. Once there is something that keeps it, it is handed
 * over, and whoever still holds this one writes there.
 */
export class MemoryOutbox implements Outbox {
  private readonly held = { entries: new Map(), photos: new Map(), jobs: new Map() } as {
    [Name in StoreName]: Map<string, Queued[Name]>
  }
  private last: Promise<void> = Promise.resolve()
  private outbox: Outbox | undefined

  get = <Name extends StoreName>(name: Name, id: string) => this.alone(name, (store) => store.get(id))
  put = <Name extends StoreName>(name: Name, item: Queued[Name]) =>
    this.alone(name, (store) => store.put(item))
  delete = (name: StoreName, id: string) => this.alone(name, (store) => store.delete(id))

  async getAll<Name extends StoreName>(name: Name): Promise<Queued[Name][]> {
    await this.last
    return this.outbox ? this.outbox.getAll(name) : this.all(name)
  }

  getAllFromIndex = <Name extends StoreName>(name: Name, index: 'garden', gardenId: string) =>
    this.alone(name, (store) => store.index(index).getAll(gardenId))

  async clear(name: StoreName): Promise<void> {
    await this.last
    if (this.outbox) await this.outbox.clear(name)
    else this.held[name].clear()
  }

  /** One after another, as a browser has them. */
  transaction<Name extends StoreName>(name: Name): OutboxTransaction<Queued[Name]> {
    const before = this.last
    let end = () => {}
    this.last = new Promise((resolve) => (end = resolve))
    let theirs: OutboxTransaction<Queued[Name]> | undefined
    const step = async <T>(does: (store: OutboxStore<Queued[Name]>) => Promise<T>): Promise<T> => {
      await before
      try {
        if (!this.outbox) return await does(this.storeOf(name))
        theirs ??= this.outbox.transaction(name, 'readwrite')
        return await does(theirs.store)
      } catch (error) {
        // As of one that failed nobody asks for its end.
        end()
        throw error
      }
    }
    const store: OutboxStore<Queued[Name]> = {
      get: (id) => step((s) => s.get(id)),
      put: (item) => step((s) => s.put(item)),
      delete: (id) => step((s) => s.delete(id)),
      index: (index) => ({ getAll: (gardenId) => step((s) => s.index(index).getAll(gardenId)) }),
    }
    return {
      store,
      get done(): Promise<void> {
        return before.then(() => theirs?.done).finally(end)
      },
    }
  }

  /** Hands all of it over, and everything after it. */
  async handOver(to: Outbox): Promise<void> {
    const before = this.last
    let end = () => {}
    this.last = new Promise((resolve) => (end = resolve))
    await before
    try {
      for (const q of this.all('entries')) await to.put('entries', q)
      for (const q of this.all('photos')) await to.put('photos', q)
      for (const q of this.all('jobs')) await to.put('jobs', q)
      this.outbox = to
    } finally {
      end()
    }
  }

  private async alone<Name extends StoreName, T>(
    name: Name,
    does: (store: OutboxStore<Queued[Name]>) => Promise<T>,
  ): Promise<T> {
    const one = this.transaction(name)
    try {
      return await does(one.store)
    } finally {
      await one.done
    }
  }

  private all<Name extends StoreName>(name: Name): Queued[Name][] {
    const byId = [...this.held[name].values()].sort((a, b) => (a.id < b.id ? -1 : 1))
    return structuredClone(byId)
  }

  private storeOf<Name extends StoreName>(name: Name): OutboxStore<Queued[Name]> {
    const held = this.held[name]
    return {
      get: (id) => Promise.resolve(structuredClone(held.get(id))),
      put: (item) => Promise.resolve(held.set(item.id, structuredClone(item))),
      delete: (id) => Promise.resolve(void held.delete(id)),
      index: () => ({
        getAll: (gardenId) => Promise.resolve(this.all(name).filter((q) => q.gardenId === gardenId)),
      }),
    }
  }
}
