import { classIntents } from './classes'
import { clusterIntents } from './clusters'
import { consistencyIntents } from './consistencyGroups'
import { directoryIntents } from './directories'
import { driveIntents } from './drives'
import { fileIntents } from './files'
import { findingIntents } from './findings'
import { hostIntents } from './hosts'
import { networkIntents } from './network'
import { poolIntents } from './pools'
import { snapshotIntents } from './snapshots'
import { systemIntents } from './systems'
import { tellingIntents } from './telling'
import { volumeIntents } from './volumes'
import type { IntentKind } from './IntentKind'

export * from './systems'
export * from './network'
export * from './drives'
export * from './pools'
export * from './clusters'
export * from './provisioning'
export * from './volumes'
export * from './labels'
export * from './mappings'
export * from './mirrors'
export * from './snapshots'
export * from './clones'
export * from './classes'
export * from './consistencyGroups'
export * from './hosts'
export * from './earlierFiles'
export * from './files'
export * from './filesFromHosts'
export * from './fileServices'
export * from './directories'
export * from './findings'
export * from './telling'
export { commandAddress, draftAddress } from './draftAddress'
export {
  alteringIntent,
  blankIntent,
  boundsOf,
  type FieldChoices,
  type FormField,
  isDrawn,
  type IntentKind,
} from './IntentKind'

/** What can be asked for, by kind of change. */
export const intents: readonly IntentKind[] = [
  ...systemIntents,
  ...networkIntents,
  ...driveIntents,
  ...poolIntents,
  ...clusterIntents,
  ...volumeIntents,
  ...snapshotIntents,
  ...classIntents,
  ...consistencyIntents,
  ...hostIntents,
  ...fileIntents,
  ...directoryIntents,
  ...findingIntents,
  ...tellingIntents,
]

/** The kind of intent of a name; undefined where there is none. */
export const intentNamed = (kind: string): IntentKind | undefined => intents.find(each => each.kind === kind)
