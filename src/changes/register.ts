import type { AnyKind } from './ChangeKind'
import { bringBackVolume } from './provision/bring-back-volume'
import { createPool } from './build/create-pool'
import { deleteHeldVolume } from './provision/delete-held-volume'
import { dissolveCluster } from './build/dissolve-cluster'
import { eraseDrive } from './build/erase-drive'
import { expandVolume } from './provision/expand-volume'
import { forgetMissing } from './build/forget-missing'
import { forgetSystem } from './build/forget-system'
import { formCluster } from './build/form-cluster'
import { growCluster } from './build/grow-cluster'
import { importCatalogue } from './tend/import-catalogue'
import { mapVolume } from './provision/map-volume'
import { mapVolumes } from './provision/map-volumes'
import { provisionVolume } from './provision/provision-volume'
import { defineRoute } from './watch/define-route'
import { defineRule } from './watch/define-rule'
import { removeRoute } from './watch/remove-route'
import { removeRule } from './watch/remove-rule'
import { testRoute } from './watch/test-route'
import { keepPool } from './build/keep-pool'
import { keepAsImage, releaseImage } from './provision/keep-as-image'
import { alignGroup } from './provision/align-group'
import { placeHosts } from './provision/place-hosts'
import { setApplication } from './provision/set-application'
import { forwardNames } from './provision/forward-names'
import { convertVolume } from './provision/convert-volume'
import { labelShare } from './provision/label-share'
import { scheduleVolumes } from './provision/schedule-volumes'
import { setHostSignIn } from './provision/set-host-sign-in'
import { forgetHost } from './provision/forget-host'
import { registerHost } from './provision/register-host'
import { registerHosts } from './provision/register-hosts'
import { registerSystem } from './build/register-system'
import { removePool } from './build/remove-pool'
import { removeVolume } from './provision/remove-volume'
import { renameVolume } from './provision/rename-volume'
import { setLocateLight } from './build/set-locate-light'
import { setNodeClock } from './build/set-node-clock'
import { setRestartService } from './build/set-restart-service'
import { setStorageNetwork } from './build/set-storage-network'
import { setSwitchPort } from './build/set-switch-port'
import { shrinkCluster } from './build/shrink-cluster'
import { signException } from './tend/sign-exception'
import { cloneVolume } from './provision/clone-volume'
import { cloneVolumes } from './provision/clone-volumes'
import { defineClass } from './provision/define-class'
import { removeClass } from './provision/remove-class'
import { setVolumeClass } from './provision/set-volume-class'
import { prepareVolume } from './provision/prepare-volume'
import { provisionVolumes } from './provision/provision-volumes'
import { holdSnapshot } from './provision/hold-snapshot'
import { keepSnapshots } from './provision/keep-snapshots'
import { removeSnapshots } from './provision/remove-snapshots'
import { restoreVolume } from './provision/restore-volume'
import { hideSnapshot, showSnapshot } from './provision/show-snapshot'
import { limitVolume } from './provision/limit-volume'
import { limitVolumes } from './provision/limit-volumes'
import { endMirror } from './provision/end-mirror'
import { mirrorVolume } from './provision/mirror-volume'
import { refillMirror } from './provision/refill-mirror'
import { moveToSystem } from './provision/move-to-system'
import { moveVolume } from './provision/move-volume'
import { formConsistencyGroup } from './provision/form-consistency-group'
import { dissolveConsistencyGroup } from './provision/dissolve-consistency-group'
import { snapshotGroup } from './provision/snapshot-group'
import { bringBackFile } from './provision/bring-back-file'
import { splitClone } from './provision/split-clone'
import { takeSnapshot } from './provision/take-snapshot'
import { unmapVolume } from './provision/unmap-volume'
import { forgetDirectory } from './grant/forget-directory'
import { joinDirectory } from './grant/join-directory'
import { leaveDirectory } from './grant/leave-directory'
import { setServiceGrants } from './grant/set-service-grants'
import { registerDirectory } from './grant/register-directory'
import { serveFiles } from './provision/serve-files'
import { stopFileService } from './provision/stop-file-service'
import { provisionShare } from './provision/provision-share'
import { setShareLimits } from './provision/set-share-limits'
import { setShareRights } from './provision/set-share-rights'
import { testShare } from './provision/test-share'
import { reportFiles } from './provision/report-files'
import { removeShare } from './provision/remove-share'
import { shareAgain } from './provision/share-again'
import { showEarlierFiles } from './provision/show-earlier-files'
import { UnknownKind } from './errors'

/** Every kind of change, in the order in which the command list shows them. */
export const kinds: readonly AnyKind[] = [
  registerSystem,
  setStorageNetwork,
  eraseDrive,
  formCluster,
  growCluster,
  shrinkCluster,
  createPool,
  provisionVolume,
  provisionVolumes,
  provisionShare,
  setShareRights,
  setShareLimits,
  registerDirectory,
  joinDirectory,
  leaveDirectory,
  setServiceGrants,
  forgetDirectory,
  testShare,
  reportFiles,
  removeShare,
  shareAgain,
  serveFiles,
  stopFileService,
  mapVolume,
  mapVolumes,
  unmapVolume,
  expandVolume,
  renameVolume,
  removeVolume,
  bringBackVolume,
  defineClass,
  removeClass,
  setVolumeClass,
  prepareVolume,
  takeSnapshot,
  cloneVolume,
  cloneVolumes,
  splitClone,
  limitVolume,
  limitVolumes,
  moveVolume,
  moveToSystem,
  mirrorVolume,
  refillMirror,
  endMirror,
  formConsistencyGroup,
  snapshotGroup,
  dissolveConsistencyGroup,
  restoreVolume,
  bringBackFile,
  removeSnapshots,
  keepSnapshots,
  holdSnapshot,
  showSnapshot,
  hideSnapshot,
  removePool,
  registerHost,
  registerHosts,
  forgetHost,
  setHostSignIn,
  scheduleVolumes,
  labelShare,
  showEarlierFiles,
  convertVolume,
  forwardNames,
  keepPool,
  defineRoute,
  testRoute,
  removeRoute,
  defineRule,
  removeRule,
  placeHosts,
  alignGroup,
  setApplication,
  keepAsImage,
  releaseImage,
  forgetSystem,
  forgetMissing,
  deleteHeldVolume,
  setSwitchPort,
  setNodeClock,
  setRestartService,
  setLocateLight,
  dissolveCluster,
  signException,
  importCatalogue,
]

const kindByName = new Map(kinds.map(each => [each.kind, each]))

/** @throws {UnknownKind} */
export function kindNamed(name: string): AnyKind {
  const kind = kindByName.get(name)
  if (kind === undefined) throw new UnknownKind(name, [...kindByName.keys()])
  return kind
}
