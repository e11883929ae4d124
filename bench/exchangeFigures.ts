import { createServer } from 'node:http'
import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { exchange } from '@/connectors/http'
import type { Figure } from './measure'

const requests = 20_000
const together = 6
const most = 0.5

/** What is left in memory of requests that are over: a worker makes as many within the hour, and its stop outlives them all. */
export async function exchangeFigures(): Promise<Figure[]> {
  const server = createServer((_, answer) => answer.end('{}'))
  await new Promise<void>(done => server.listen(0, '127.0.0.1', done))
  const at = server.address()
  const endpoint = {
    address: `http://127.0.0.1:${typeof at === 'object' && at !== null ? at.port : 0}`,
    acceptedFingerprint: null,
  }
  const stop = new AbortController().signal
  const ask = async (count: number) => {
    for (let asked = 0; asked < count; asked += together)
      await Promise.all(Array.from({ length: together }, () => exchange(endpoint, 'GET', '/', { stop })))
  }
  try {
    // What is made once is there before anything is counted.
    await ask(requests / 10)
    const before = keptBytes()
    await ask(requests)
    const megabytes = (keptBytes() - before) / 1e6
    return [
      {
        what: `Memory kept of ${requests.toLocaleString('en')} requests that are over`,
        measured: `${megabytes.toFixed(1)} MB`,
        wanted: `under ${most} MB`,
        holds: megabytes < most,
      },
    ]
  } finally {
    server.closeAllConnections()
    server.close()
  }
}

function keptBytes(): number {
  setFlagsFromString('--expose-gc')
  const tidy = runInNewContext('gc') as () => void
  tidy()
  tidy()
  return process.memoryUsage().heapUsed
}
