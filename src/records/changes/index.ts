export { changeById, evidenceOf, forecastOutcomes, journalOf, latestChanges, runningCount } from './readChanges'
export { discardDraft, insertDraft, reviseDraft } from './writeDrafts'
export {
  carryOutTask,
  decideAlone,
  heldBy,
  heldVolumesPast,
  queue,
  runningIds,
  setRunning,
  wantResume,
  wantStop,
} from './carryOut'
export { backToDraft, endChange, keepEvidence, keepOutcome, mark, type ChangeEnd } from './writeJournal'
