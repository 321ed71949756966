import type { SessionInfo } from '@border/contract'
import { randomUUID } from 'node:crypto'

/** Somebody of a demo at a device of their own: what is asked and written as the application does. */
export class Client {
  private cookie = ''
  private token = ''

  private constructor(private readonly base: string) {}

  /**
   * @param address of a server
   * @param personId the first of the demo’s people unless given
   */
  static async enter(address: string, personId?: string): Promise<Client> {
    const client = new Client(`${address}/api`)
    const { csrfToken, demoPeople } = await client.ask<SessionInfo>('/session')
    client.token = csrfToken
    const body = { personId: personId ?? demoPeople[0]!.id }
    client.token = (await client.ask<SessionInfo>('/session/demo', body)).csrfToken
    return client
  }

  /**
   * What is answered, to a question or, with a body, to a write.
   *
   * @throws {Error} on anything but an answer
   */
  async ask<T = unknown>(path: string, body?: object): Promise<T> {
    return (await (await this.send(path, body)).json()) as T
  }

  /** How many bytes a question is answered with, unpacked. */
  async sizeOf(path: string): Promise<number> {
    return (await (await this.send(path)).arrayBuffer()).byteLength
  }

  private async send(path: string, body?: object): Promise<Response> {
    const response = await fetch(this.base + path, {
      method: body ? 'POST' : 'GET',
      headers: {
        cookie: this.cookie,
        ...(body && {
          'content-type': 'application/json',
          'x-csrf-token': this.token,
          'idempotency-key': randomUUID(),
        }),
      },
      body: body && JSON.stringify(body),
    })
    const sent = response.headers.getSetCookie()
    if (sent.length > 0) this.cookie = sent.map((c) => c.split(';')[0]).join('; ')
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
    return response
  }
}
