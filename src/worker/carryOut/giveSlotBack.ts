import type { Sequelize } from 'sequelize'
import type { TaskRuns } from '@/changes'
import { inTransaction } from '@/records'
import { waitForLater, waitForTask, type Wait } from '@/records/changes'
import { Later } from './patience'

/** Notes what a change waits for, a system's task or a system that does not answer, so that it holds no slot meanwhile. */
export async function giveSlotBack(
  database: Sequelize,
  {
    cause,
    failing,
    ...wait
  }: {
    readonly changeId: string
    readonly stepIndex: number
    readonly cause: TaskRuns | Later
    readonly failing: Wait['failing']
    /** Whether a stop takes effect while it waits: not while what was made is taken back. */
    readonly canStop: boolean
  },
): Promise<void> {
  await inTransaction(database, scope => {
    if (cause instanceof Later) return waitForLater(scope, { ...wait, seconds: cause.seconds, failing })
    const { systemId, task, words, doneRatio } = cause
    return waitForTask(scope, { ...wait, systemId, task, words, doneRatio })
  })
}
