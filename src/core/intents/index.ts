import type { IntentKind } from './IntentKind'
import { bringBackVolumeIntent } from './bring-back-volume'
import { createPoolIntent } from './create-pool'
import { deleteHeldVolumeIntent } from './delete-held-volume'
import { dissolveClusterIntent } from './dissolve-cluster'
import { eraseDriveIntent } from './erase-drive'
import { expandVolumeIntent } from './expand-volume'
import { forgetMissingIntent } from './forget-missing'
import { forgetSystemIntent } from './forget-system'
import { formClusterIntent } from './form-cluster'
import { growClusterIntent } from './grow-cluster'
import { importCatalogueIntent } from './import-catalogue'
import { mapVolumeIntent } from './map-volume'
import { provisionVolumeIntent } from './provision-volume'
import { registerHostIntent } from './register-host'
import { registerSystemIntent } from './register-system'
import { removePoolIntent } from './remove-pool'
import { removeVolumeIntent } from './remove-volume'
import { renameVolumeIntent } from './rename-volume'
import { setLocateLightIntent } from './set-locate-light'
import { setNodeClockIntent } from './set-node-clock'
import { setRestartServiceIntent } from './set-restart-service'
import { setStorageNetworkIntent } from './set-storage-network'
import { setSwitchPortIntent } from './set-switch-port'
import { shrinkClusterIntent } from './shrink-cluster'
import { signExceptionIntent } from './sign-exception'
import { unmapVolumeIntent } from './unmap-volume'

export { draftAddress } from './draftAddress'
export { blankIntent, mostCharacters, type FormField, type IntentKind } from './IntentKind'
export { bringBackVolumeIntent, type BringBackVolumeIntent } from './bring-back-volume'
export { createPoolIntent, type CreatePoolIntent } from './create-pool'
export { deleteHeldVolumeIntent, type DeleteHeldVolumeIntent } from './delete-held-volume'
export { dissolveClusterIntent, type DissolveClusterIntent } from './dissolve-cluster'
export { eraseDriveIntent, type EraseDriveIntent } from './erase-drive'
export { expandVolumeIntent, type ExpandVolumeIntent } from './expand-volume'
export { forgetMissingIntent, type ForgetMissingIntent } from './forget-missing'
export { forgetSystemIntent, type ForgetSystemIntent } from './forget-system'
export { formClusterIntent, type FormClusterIntent } from './form-cluster'
export { growClusterIntent, type GrowClusterIntent } from './grow-cluster'
export { importCatalogueIntent, type ImportCatalogueIntent } from './import-catalogue'
export { mapVolumeIntent, type MapVolumeIntent } from './map-volume'
export { provisionVolumeIntent, type ProvisionVolumeIntent } from './provision-volume'
export { registerHostIntent, type RegisterHostIntent } from './register-host'
export { registerSystemIntent, type RegisterSystemIntent } from './register-system'
export { removePoolIntent, type RemovePoolIntent } from './remove-pool'
export { removeVolumeIntent, type RemoveVolumeIntent } from './remove-volume'
export { renameVolumeIntent, type RenameVolumeIntent } from './rename-volume'
export { setLocateLightIntent, type SetLocateLightIntent } from './set-locate-light'
export { setNodeClockIntent, type SetNodeClockIntent } from './set-node-clock'
export { setRestartServiceIntent, type SetRestartServiceIntent } from './set-restart-service'
export { setStorageNetworkIntent, type SetStorageNetworkIntent } from './set-storage-network'
export { setSwitchPortIntent, type SetSwitchPortIntent } from './set-switch-port'
export { shrinkClusterIntent, type ShrinkClusterIntent } from './shrink-cluster'
export { signExceptionIntent, type SignExceptionIntent } from './sign-exception'
export { unmapVolumeIntent, type UnmapVolumeIntent } from './unmap-volume'

/** What can be asked for, by kind of change. */
export const intents: readonly IntentKind[] = [
  bringBackVolumeIntent,
  createPoolIntent,
  deleteHeldVolumeIntent,
  dissolveClusterIntent,
  eraseDriveIntent,
  expandVolumeIntent,
  forgetMissingIntent,
  forgetSystemIntent,
  formClusterIntent,
  growClusterIntent,
  importCatalogueIntent,
  mapVolumeIntent,
  provisionVolumeIntent,
  registerHostIntent,
  registerSystemIntent,
  removePoolIntent,
  removeVolumeIntent,
  renameVolumeIntent,
  setLocateLightIntent,
  setNodeClockIntent,
  setRestartServiceIntent,
  setStorageNetworkIntent,
  setSwitchPortIntent,
  shrinkClusterIntent,
  signExceptionIntent,
  unmapVolumeIntent,
]

/** The kind of intent of a name; undefined where there is none. */
export const intentNamed = (kind: string): IntentKind | undefined => intents.find(each => each.kind === kind)
