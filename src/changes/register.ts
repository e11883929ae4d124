import type { AnyKind } from './ChangeKind'
import { bringBackVolume } from './bring-back-volume'
import { createPool } from './create-pool'
import { deleteHeldVolume } from './delete-held-volume'
import { UnknownKind } from './errors'
import { expandVolume } from './expand-volume'
import { forgetSystem } from './forget-system'
import { mapVolume } from './map-volume'
import { provisionVolume } from './provision-volume'
import { registerHost } from './register-host'
import { registerSystem } from './register-system'
import { removePool } from './remove-pool'
import { removeVolume } from './remove-volume'
import { unmapVolume } from './unmap-volume'

/** Every kind of change, in the order in which the command list shows them. */
export const kinds: readonly AnyKind[] = [
  registerSystem,
  createPool,
  provisionVolume,
  mapVolume,
  unmapVolume,
  expandVolume,
  removeVolume,
  bringBackVolume,
  removePool,
  registerHost,
  forgetSystem,
  deleteHeldVolume,
]

const kindByName = new Map(kinds.map(each => [each.kind, each]))

/** @throws {UnknownKind} */
export function kindNamed(name: string): AnyKind {
  const kind = kindByName.get(name)
  if (kind === undefined) throw new UnknownKind(name, [...kindByName.keys()])
  return kind
}
