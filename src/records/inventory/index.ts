export { nextReading, storeInventory, storeParts, type Kept } from './storeInventory'
export type { NotKept } from './storeObjects'
export {
  agentSecretId,
  dropHosts,
  enrolHost,
  enrolHosts,
  enrolSystem,
  forgetSystem,
  keepProbe,
  noteReach,
  probeAccess,
  systemAccess,
  systemIds,
  systemsNamed,
  systemName,
  type SystemAccess,
} from './systems'
export { brokenMirrors } from './brokenMirrors'
export { hold, idAt, release } from './objects'
export { movedTo } from './movedTo'
export { agreedBefore, estateClock, estateNow, followsSystems, keepClock } from './clock'
export {
  controllersByTarget,
  disksNamed,
  hostsToLookAt,
  keepHostPaths,
  keepPathsOf,
  keptHostPaths,
  type HostPath,
} from './hostPaths'
export {
  dropClass,
  keepClass,
  keepPool,
  noteShare,
  placeHosts,
  setApplication,
  setClass,
  setImage,
  setSchedule,
} from './classes'
export { lastMoment, noteMoment } from './moments'
export { notePromises } from './promiseDays'
export { keepPromiseLooks, latestPromises } from './promiseLooks'
export { noteSnapshots } from './snapshots'
export { hostSignIn, setHostSignIn } from './signIns'
export { ownSchedules, snapshotsPast, volumesDue, volumesUnder, type Scheduled } from './schedules'
export { forgetMissing, gone, missingOf } from './missing'
export { noteWorker, withdrawWorker, workerSilentSeconds } from './workers'
export { dropCatalogue, keepCatalogue, keepNameAnswers, keepPathProbe, signException, withdrawException } from './nodes'
export { keepFindings } from './findings'
export { isWorkKnown, keepNewWork, noteWork, workMisses } from './rebuilds'
export { accessApart } from './accessApart'
export { drifted, forgetSettled, keepSettled } from './settled'
