import { setTimeout as pause } from 'node:timers/promises'
import type { Figure } from './measure'
import type { Headers } from './webProcess'

const readers = 200
const readSeconds = 30
const everySeconds = 10

/** Many readers with an open event stream, each opening a page every ten seconds. */
export async function readerFigure(
  address: string,
  headers: Headers,
  paths: readonly string[],
  beside = '',
): Promise<Figure> {
  const ending = new AbortController()
  const taken: number[] = []
  let errors = 0
  const one = async (index: number) => {
    const token = await tokenOf(address, headers, Math.floor(index / 20))
    const own = { Authorization: `Bearer ${token}` }
    const events = await fetch(`${address}/api/v1/events`, { headers: own, signal: ending.signal })
    void events.body?.pipeTo(new WritableStream()).catch(() => undefined)
    await pause((index / readers) * everySeconds * 1000)
    for (let turn = 0; turn < readSeconds / everySeconds; turn += 1) {
      const at = performance.now()
      const answer = await fetch(`${address}${paths[(index + turn) % paths.length]}`, { headers })
      await answer.arrayBuffer()
      const milliseconds = performance.now() - at
      taken.push(milliseconds)
      if (answer.status !== 200) errors += 1
      await pause(Math.max(0, everySeconds * 1000 - milliseconds))
    }
  }
  await Promise.all(Array.from({ length: readers }, (_, index) => one(index)))
  ending.abort()
  taken.sort((a, b) => a - b)
  const p95 = taken[Math.floor(taken.length * 0.95)] ?? Infinity
  return {
    what: `${readers} readers with an open event stream, a page each every ${everySeconds} seconds${beside}`,
    measured: `95% within ${p95.toFixed(0)} ms, ${errors} errors`,
    wanted: '95% under 300 ms, no error',
    holds: p95 < 300 && errors === 0,
  }
}

/** By the address of their web process. */
const tokens = new Map<string, Promise<string>>()

/** One token of a few: nobody may hold more than some streams at once. */
async function tokenOf(address: string, headers: Headers, number: number): Promise<string> {
  const made =
    tokens.get(`${address} ${number}`) ??
    fetch(`${address}/api/v1/tokens`, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: `reader-${number}` }),
    })
      .then(answer => answer.json() as Promise<{ token: string }>)
      .then(({ token }) => token)
  tokens.set(`${address} ${number}`, made)
  return made
}
