import { anyPorts, startFleet, type Fleet } from '..'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

export interface Answer {
  readonly status: number
  readonly headers: Headers
  readonly text: string
  readonly body: Readonly<Record<string, unknown>>
}

/** A fleet of its own for one test file, and a way to ask its services as a client would. */
export async function testFleet(rate = 60) {
  const folder = mkdtempSync(join(tmpdir(), 'fleet-'))
  const fleet: Fleet = await startFleet(folder, anyPorts, rate)
  const ask = async (
    system: string,
    method: string,
    path: string,
    { body, headers = {} }: { body?: unknown; headers?: Readonly<Record<string, string>> } = {},
  ): Promise<Answer> => {
    const isText = typeof body === 'string'
    const answer = await fetch(`http://127.0.0.1:${fleet.ports.arrays[system] ?? 0}${path}`, {
      method,
      redirect: 'manual',
      headers: {
        Authorization: `Basic ${Buffer.from(`admin:${system}-demo`).toString('base64')}`,
        ...(body === undefined ? {} : { 'Content-Type': 'application/json' }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: isText ? body : JSON.stringify(body) }),
    })
    const text = await answer.text()
    const isJson = answer.headers.get('content-type')?.includes('json') === true && text !== ''
    const read = isJson ? (JSON.parse(text) as Answer['body']) : {}
    return { status: answer.status, headers: answer.headers, text, body: read }
  }
  const stop = async () => {
    await fleet.stop()
    rmSync(folder, { recursive: true })
  }
  return { fleet, ask, stop }
}
