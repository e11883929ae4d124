import { CommandRefused } from './CommandRefused'
import { endOrphans } from './endOrphans'
import { whoRuns } from './runFile'

const patienceMilliseconds = 40_000

/** Ends what runs on the data folder, and waits until it has ended. */
export async function stop(folder: string): Promise<void> {
  const running = whoRuns(folder)
  if (running === undefined) {
    const isLeft = await endOrphans(folder)
    process.stdout.write(
      isLeft ? 'Ended what a killed start had left; all data is kept.\n' : 'Nothing runs on this data folder.\n',
    )
    return
  }
  process.kill(running.pid, 'SIGTERM')
  const until = Date.now() + patienceMilliseconds
  while (Date.now() < until) {
    if (whoRuns(folder) === undefined) {
      process.stdout.write('Ended; all data is kept.\n')
      return
    }
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  throw new CommandRefused(
    `Process ${running.pid} has not ended.`,
    'Look at the logs in the data folder, then end it by hand.',
  )
}
