/** Long work that a system answers with a task resource. */
export interface SystemTask {
  readonly locator: string
  /** `gone`: the system no longer knows it, which says nothing of its work. */
  readonly state: 'running' | 'done' | 'failed' | 'gone'
  readonly doneRatio: number
  readonly why: string
  /** By the system's own clock; null where it does not say. */
  readonly startedAt: string | null
  readonly endedAt: string | null
}

export interface Tasks {
  readonly at: (locator: string) => Promise<SystemTask>
  /** Stops work that has not ended; one that has ended, or is gone, is stopped. @throws where it cannot be stopped */
  readonly stop: (locator: string) => Promise<void>
}
