import { keyAt } from '@/records/secrets'
import { startWorker } from './startWorker'

/** The worker process. DATABASE_URL and WENDREL_KEY_FILE say where its records and its key are. */
const url = process.env['DATABASE_URL'] ?? ''
const log = (line: string) => process.stderr.write(`${new Date().toISOString()} ${line}\n`)
const worker = await startWorker(url, keyAt(process.env['WENDREL_KEY_FILE'] ?? '.data/key'), log)
process.stdout.write('the worker is at work\n')
let isEnding = false
void worker.ended.then(() => {
  if (!isEnding) process.exit(1)
})
const end = async () => {
  isEnding = true
  await worker.stop()
  process.exit(0)
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void end())
