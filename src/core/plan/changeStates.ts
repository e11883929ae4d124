/** The states of a change, in the product's own words. */
export const changeStates = [
  'draft',
  'checked',
  'running',
  'proven',
  'unproven',
  'stopped',
  'failed',
  'undone',
] as const
export type ChangeState = (typeof changeStates)[number]

const next: Readonly<Record<ChangeState, readonly ChangeState[]>> = {
  draft: ['checked', 'running'],
  checked: ['draft', 'running'],
  running: ['draft', 'proven', 'unproven', 'stopped', 'failed', 'undone'],
  stopped: ['running', 'undone'],
  unproven: ['running', 'undone'],
  failed: ['undone'],
  proven: ['undone'],
  undone: [],
}

/** Whether a change may go from one state to another; the database holds the same rule by a trigger. */
export const canMove = (from: ChangeState, to: ChangeState) => next[from].includes(to)
