import autocannon from 'autocannon'
import { setTimeout as pause } from 'node:timers/promises'
import { buildWhenStale } from '../commands/build'
import { freePort } from '../commands/ports'
import { untilAnswers } from '../commands/processes'
import { estateOf, large } from './largeEstate'
import { draftFigure } from './draftFigures'
import { residentMegabytes } from './processFigures'
import { readerFigures } from './readers'
import { signedIn, startWeb, type Headers } from './webProcess'
import { inWords, timed, timesOf, type Figure } from './measure'

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
    const read = await readerFigures(address, headers, Object.values(pages))
    await pause(60_000)
    const megabytes = residentMegabytes(web.pid)
    return [
      ...opened,
      ...loaded,
      ...read,
      {
        what: 'Memory of the web process after a minute of rest',
        measured: `${megabytes} MB`,
        wanted: 'under 250 MB',
        holds: megabytes < 250,
      },
      await draftFigure(address, headers, database),
    ]
  } finally {
    web.kill('SIGKILL')
    await database.close()
  }
}

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
