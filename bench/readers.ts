import { setTimeout as pause } from 'node:timers/promises'
import { inWords, type Figure } from './measure'
import type { Headers } from './webProcess'

const readers = 200
// Long enough that what the first of them find forgotten, and is made anew, does not decide.
const readSeconds = 60
const everySeconds = 10
const everyone = Array.from({ length: readers }, (_, index) => index)

/**
 * Many readers with an open event stream, each opening a page every ten seconds. Their streams are opened at once, as when the server
 * was away and all pages come back, which is a figure of its own: it lasts a second or two, and what is opened meanwhile waits for it.
 */
export async function readerFigures(
  address: string,
  headers: Headers,
  paths: readonly string[],
  beside = '',
): Promise<Figure[]> {
  const ending = new AbortController()
  const taken: number[] = []
  let errors = 0
  const own = await Promise.all(everyone.map(async index => tokenOf(address, headers, Math.floor(index / 20))))
  const began = performance.now()
  await Promise.all(
    own.map(async token => {
      const from = { headers: { Authorization: `Bearer ${token}` }, signal: ending.signal }
      const events = await fetch(`${address}/api/v1/events`, from)
      if (events.status !== 200) errors += 1
      void events.body?.pipeTo(new WritableStream()).catch(() => undefined)
    }),
  )
  const opening = performance.now() - began
  const one = async (index: number) => {
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
  await Promise.all(everyone.map(one))
  ending.abort()
  taken.sort((a, b) => a - b)
  const p95 = taken[Math.floor(taken.length * 0.95)] ?? Infinity
  const come = {
    what: `${readers} event streams opened at once${beside}`,
    measured: `all within ${inWords(opening)}`,
    wanted: 'under 3 s',
    holds: opening < 3000,
  }
  const read = {
    what: `${readers} readers with an open event stream, a page each every ${everySeconds} seconds${beside}`,
    measured: `95% within ${p95.toFixed(0)} ms, ${errors} errors`,
    wanted: '95% under 300 ms, no error',
    holds: p95 < 300 && errors === 0,
  }
  return [come, read]
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
