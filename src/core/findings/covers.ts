import type { FindingGravity } from './Finding'

const graver: readonly FindingGravity[] = ['note', 'soon', 'now']

/** Whether what was signed for something of a gravity still covers it: what has become graver since was not meant. */
export const covers = (signed: FindingGravity | null, found: FindingGravity): boolean =>
  signed === null || graver.indexOf(found) <= graver.indexOf(signed)
