import { ownKey } from '@/records/secrets'
import { startWorker } from './startWorker'

/** The worker process. DATABASE_URL and WENDREL_KEY_FILE or WENDREL_KEY say where its records and its key are. */
const log = (line: string) => process.stderr.write(`${new Date().toISOString()} ${line}\n`)
const worker = await startWorker(process.env['DATABASE_URL'] ?? '', ownKey(), log)
process.stdout.write('the worker is at work\n')
// One fault that nobody has foreseen must not end all that runs; what it concerned is taken up again.
process.on('unhandledRejection', cause =>
  log(`unforeseen: ${cause instanceof Error ? (cause.stack ?? '') : String(cause)}`),
)
const end = async () => {
  await worker.stop()
  process.exit(0)
}
for (const signal of ['SIGTERM', 'SIGINT'] as const) process.once(signal, () => void end())
