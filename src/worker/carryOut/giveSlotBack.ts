import type { TaskRuns } from '@/changes'
import type { Scope } from '@/records'
import { waitForLater, waitForTask, type Wait } from '@/records/changes'
import { Later } from './patience'

/** Notes what a change waits for, a system's task or a system that does not answer, so that it holds no slot meanwhile. */
export async function giveSlotBack(
  scope: Scope,
  {
    changeId,
    stepIndex,
    cause,
    failing,
  }: {
    readonly changeId: string
    readonly stepIndex: number
    readonly cause: TaskRuns | Later
    readonly failing: Wait['failing']
  },
): Promise<void> {
  if (cause instanceof Later) return waitForLater(scope, { changeId, stepIndex, seconds: cause.seconds, failing })
  const { systemId, task, words, doneRatio } = cause
  await waitForTask(scope, { changeId, stepIndex, systemId, task, words, doneRatio })
}
