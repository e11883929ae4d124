import { run, Logger } from 'graphile-worker'
import { openDatabase } from '@/records'
import { carryOutTask } from '@/records/changes'
import { runChange } from './carryOut/runChange'
import { clockLoop } from './loops/clockLoop'
import { collectLoop } from './loops/collectLoop'
import { watchOverChanges } from './loops/watchOverChanges'
import { World } from './World'

const changesAtOnce = 8

/** Starts a worker: it collects, carries out changes and watches over them until stopped. Any number may run. */
export async function startWorker(
  url: string,
  key: Buffer,
  log: (line: string) => void,
): Promise<{ readonly ended: Promise<void>; readonly stop: () => Promise<void> }> {
  const ending = new AbortController()
  const database = openDatabase(url, 12)
  const world = new World(database, url, key, ending.signal)
  const runner = await run({
    connectionString: url,
    concurrency: changesAtOnce,
    pollInterval: 2000,
    noHandleSignals: true,
    logger: new Logger(() => (level, message) => {
      if (level === 'error') log(`queue: ${message}`)
    }),
    taskList: { [carryOutTask]: payload => runChange(world, (payload as { changeId: string }).changeId) },
  })
  const loops = [clockLoop(world), collectLoop(world, log), watchOverChanges(world, log)]
  return {
    // The queue gives up when it has lost its database for good: then the process has to begin anew.
    ended: runner.promise.catch((cause: unknown) => log(`queue: ${String(cause)}`)),
    async stop() {
      ending.abort()
      await runner.stop()
      await Promise.allSettled(loops)
      await database.close()
    },
  }
}
