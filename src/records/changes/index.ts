export { changeLines, changesAbout } from './changeLines'
export {
  changeById,
  changeCount,
  changeWith,
  draftHead,
  changeSummaries,
  evidenceOf,
  forecastOutcomes,
  journalOf,
  latestChanges,
  leftDraft,
  runningCount,
} from './readChanges'
export { discardDraft, insertDraft, reviseDraft } from './writeDrafts'
export {
  claimAgain,
  decideAlone,
  heldBy,
  heldVolumesPast,
  atWorkOn,
  setRunning,
  wantResume,
  wantStop,
} from './carryOut'
export { carryOutTask, queue } from './queue'
export { backToDraft, endChange, mark, noteRefusal, type ChangeEnd } from './writeJournal'
export {
  endWait,
  noteWaitTold,
  readyIds,
  systemsAwaited,
  wake,
  waitForLater,
  waitForTask,
  waitOf,
  waitsAt,
} from './waits'
export type { Failing, Wait } from './models'
