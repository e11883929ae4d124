export { changeLines, changesAbout } from './changeLines'
export {
  changeById,
  evidenceOf,
  forecastOutcomes,
  journalOf,
  latestChanges,
  leftDraft,
  runningCount,
} from './readChanges'
export { discardDraft, insertDraft, reviseDraft } from './writeDrafts'
export {
  carryOutTask,
  claimAgain,
  decideAlone,
  heldBy,
  heldVolumesPast,
  atWorkOn,
  queue,
  setRunning,
  wantResume,
  wantStop,
} from './carryOut'
export { backToDraft, endChange, mark, noteRefusal, type ChangeEnd } from './writeJournal'
export {
  endWait,
  noteWaitTold,
  readyIds,
  wake,
  waitForLater,
  waitForTask,
  waitOf,
  waitsAt,
  type Failing,
  type Wait,
} from './waits'
