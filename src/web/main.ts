import next from 'next'
import { askerOf } from '@/app/server/askerOf'
import { context } from '@/app/server/context'
import { front } from './front'
import { remembering } from './remembering'
import { tidyAtRest } from './tidyAtRest'

/** The web process: the pages and the API behind one server of ours. */
const hostname = process.env['WENDREL_LISTEN'] ?? '127.0.0.1'
const port = Number(process.env['WENDREL_PORT'] ?? 4180)
const app = next({ dev: false, dir: process.cwd(), hostname, port })
await app.prepare()
const answer = app.getRequestHandler()
const { memory } = context()
const behind = remembering((request, response) => answer(request, response), {
  askerOf,
  isTold: memory.isTold,
  onChange: forget => memory.onForget(forget),
})
const server = front(behind, process.env['WENDREL_TRUSTED_PROXIES'] ?? '')
tidyAtRest(server)
server.listen(port, hostname, () => process.stdout.write(`the pages are at http://${hostname}:${port}\n`))
const end = () => {
  server.close(() => process.exit(0))
  // Event streams stay open for as long as a page does: they are cut, and the pages come back to them.
  server.closeAllConnections()
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, end)
