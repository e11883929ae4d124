import autocannon from 'autocannon'
import { spawn, type ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import type { Sequelize } from 'sequelize'
import { firstCode } from '@/records/access'
import { buildWhenStale, programs } from '../commands/build'
import { projectFolder } from '../commands/paths'
import { freePort } from '../commands/ports'
import { untilAnswers } from '../commands/processes'
import { estateOf, large } from './largeEstate'
import { residentMegabytes } from './workerFigures'
import { inWords, timed, timesOf, type Figure } from './measure'

const administrator = { name: 'bench', password: 'ninety-lanterns-by-the-quay' }
const pages = {
  Today: '/',
  Build: '/build',
  Drives: '/build/drives',
  'A system': `/build/systems/${large}`,
  Pools: '/build/pools',
  Provision: '/provision',
  Changes: '/changes',
} as const
const loadSeconds = 6
const connections = 20
const readers = 200
const readSeconds = 30
const everySeconds = 10

/** The web process upon the large estate: pages, their rates beside what the same server answers without content, and its memory. */
export async function webFigures(url: string): Promise<Figure[]> {
  await buildWhenStale(line => process.stdout.write(`${line}\n`))
  const database = await estateOf(url)
  const port = await freePort()
  const web = startWeb(url, port)
  const address = `http://127.0.0.1:${port}`
  try {
    if (!(await untilAnswers(`${address}/api/v1/openapi.json`, 60_000))) throw new Error('The pages do not answer.')
    const headers = { cookie: await signedIn(address, database) }
    const opened = await pageFigures(address, headers)
    const loaded = await loadFigures(address, headers)
    const read = await readerFigure(address, headers)
    await pause(60_000)
    const megabytes = residentMegabytes(web.pid)
    return [
      ...opened,
      ...loaded,
      read,
      {
        what: 'Memory of the web process after a minute of rest',
        measured: `${megabytes} MB`,
        wanted: 'under 250 MB',
        holds: megabytes < 250,
      },
    ]
  } finally {
    web.kill('SIGKILL')
    await database.close()
  }
}

const startWeb = (url: string, port: number): ChildProcess =>
  spawn(process.execPath, [programs.web], {
    cwd: projectFolder,
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      DATABASE_URL: url,
      WENDREL_KEY: randomBytes(32).toString('base64'),
      WENDREL_PORT: `${port}`,
    },
  })

async function signedIn(address: string, database: Sequelize): Promise<string> {
  const post = (path: string, body: object) =>
    fetch(`${address}/api/v1${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  await post('/first-administrator', { code: await firstCode({ database }), ...administrator })
  const answer = await post('/session', administrator)
  if (answer.status !== 204) throw new Error(`Nobody was signed in: ${answer.status} ${await answer.text()}`)
  return answer.headers
    .getSetCookie()
    .map(each => each.split(';')[0])
    .join('; ')
}

type Headers = Readonly<Record<string, string>>

/** How long each page takes at the server, and what it sends. */
async function pageFigures(address: string, headers: Headers): Promise<Figure[]> {
  const figures: Figure[] = []
  for (const [name, path] of Object.entries(pages)) {
    let bytes = 0
    // A change before each opening, so that nothing is answered from memory.
    const change = () =>
      fetch(`${address}/api/v1/rounds`, {
        method: 'POST',
        headers: { ...headers, 'Content-Type': 'application/json' },
        body: '{"note":""}',
      })
    const open = async () => {
      const answer = await fetch(`${address}${path}`, { headers })
      bytes = (await answer.text()).length
      if (answer.status !== 200) throw new Error(`${path}: ${answer.status}`)
    }
    await open()
    const taken: number[] = []
    for (let turn = 0; turn < 9; turn += 1) {
      if (!(await change()).ok) throw new Error('The change was refused.')
      taken.push((await timed(1, open)).best)
    }
    const { median, best } = timesOf(taken)
    figures.push({
      what: `${name}, whole page, read anew`,
      measured: `${inWords(median)}, ${Math.round(bytes / 1000)} kB`,
      wanted: 'under 300 ms and 300 kB',
      holds: best < 300 && bytes < 300_000,
    })
  }
  return figures
}

/** Requests a second, beside what the same server answers without content in the same run. */
async function loadFigures(address: string, headers: Headers): Promise<Figure[]> {
  const rate = async (path: string) => {
    const run = () => autocannon({ url: `${address}${path}`, connections, duration: loadSeconds, headers })
    const { requests, latency, errors } = await run()
    if (errors > 0) throw new Error(`${path}: ${errors} requests failed.`)
    return { average: requests.average, p50: latency.p50 }
  }
  const [emptyPage, today] = [await rate('/nowhere'), await rate('/')]
  const [bare, list] = [await rate('/api/v1/nowhere'), await rate('/api/v1/volumes?limit=50')]
  const beside = (what: string, it: typeof bare, reference: typeof bare, words: string): Figure => ({
    what,
    measured: `${it.average.toFixed(0)} a second, half within ${it.p50} ms; ${words} ${reference.average.toFixed(0)}`,
    wanted: `at least 60% of ${words}`,
    holds: it.average >= 0.6 * reference.average,
  })
  return [
    beside(`Today at ${connections} connections`, today, emptyPage, 'an empty page'),
    beside(`The list of volumes by the API at ${connections} connections`, list, bare, 'a bare answer'),
  ]
}

/** Many readers with an open event stream, each opening a page every ten seconds. */
async function readerFigure(address: string, headers: Headers): Promise<Figure> {
  const ending = new AbortController()
  const taken: number[] = []
  let errors = 0
  const one = async (index: number) => {
    const token = await tokenOf(address, headers, Math.floor(index / 20))
    const own = { Authorization: `Bearer ${token}` }
    const events = await fetch(`${address}/api/v1/events`, { headers: own, signal: ending.signal })
    void events.body?.pipeTo(new WritableStream()).catch(() => undefined)
    await pause((index / readers) * everySeconds * 1000)
    const paths = Object.values(pages)
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
    what: `${readers} readers with an open event stream, a page each every ${everySeconds} seconds`,
    measured: `95% within ${p95.toFixed(0)} ms, ${errors} errors`,
    wanted: '95% under 300 ms, no error',
    holds: p95 < 300 && errors === 0,
  }
}

const tokens = new Map<number, Promise<string>>()

/** One token of a few: nobody may hold more than some streams at once. */
async function tokenOf(address: string, headers: Headers, number: number): Promise<string> {
  const made =
    tokens.get(number) ??
    fetch(`${address}/api/v1/tokens`, {
      method: 'POST',
      headers: { ...headers, 'Content-Type': 'application/json' },
      body: JSON.stringify({ name: `reader-${number}` }),
    })
      .then(answer => answer.json() as Promise<{ token: string }>)
      .then(({ token }) => token)
  tokens.set(number, made)
  return made
}
