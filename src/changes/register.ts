import type { AnyKind } from './ChangeKind'
import { bringBackVolume } from './bring-back-volume'
import { createPool } from './create-pool'
import { deleteHeldVolume } from './delete-held-volume'
import { dissolveCluster } from './dissolve-cluster'
import { eraseDrive } from './erase-drive'
import { expandVolume } from './expand-volume'
import { forgetMissing } from './forget-missing'
import { forgetSystem } from './forget-system'
import { formCluster } from './form-cluster'
import { growCluster } from './grow-cluster'
import { importCatalogue } from './import-catalogue'
import { mapVolume } from './map-volume'
import { provisionVolume } from './provision-volume'
import { registerHost } from './register-host'
import { registerSystem } from './register-system'
import { removePool } from './remove-pool'
import { removeVolume } from './remove-volume'
import { renameVolume } from './rename-volume'
import { setLocateLight } from './set-locate-light'
import { setNodeClock } from './set-node-clock'
import { setRestartService } from './set-restart-service'
import { setStorageNetwork } from './set-storage-network'
import { setSwitchPort } from './set-switch-port'
import { shrinkCluster } from './shrink-cluster'
import { signException } from './sign-exception'
import { unmapVolume } from './unmap-volume'
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
  mapVolume,
  unmapVolume,
  expandVolume,
  renameVolume,
  removeVolume,
  bringBackVolume,
  removePool,
  registerHost,
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
