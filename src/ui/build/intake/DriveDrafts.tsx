'use client'
import { suffixOf, type Drive } from '@/core/estate'
import type { EraseDriveIntent, SetLocateLightIntent } from '@/core/intents'
import type { ShownChange } from '@/core/views'
import { IntentForm } from '../../drafts/IntentForm'

/** Erasing what an earlier use has left; asks for what stands on the drive's label. */
export const EraseDrive = ({ drive, kept }: { readonly drive: Drive; readonly kept: ShownChange | undefined }) => (
  <IntentForm<EraseDriveIntent>
    kind="erase-drive"
    title={`Erase drive ${suffixOf(drive.serial)}`}
    begin={{ systemId: drive.systemId, driveId: drive.id }}
    kept={kept}
  />
)

interface SetLocateLightProps {
  readonly drives: readonly Drive[]
  readonly kept: ShownChange | undefined
}

/** Switching the lights of some drives of one system. */
export function SetLocateLight({ drives, kept }: SetLocateLightProps) {
  const [first] = drives
  if (first === undefined) return null
  const title =
    drives.length === 1 ? `Locate light of ${suffixOf(first.serial)}` : `Locate lights of ${drives.length} drives`
  return (
    <IntentForm<SetLocateLightIntent>
      kind="set-locate-light"
      title={title}
      begin={{ systemId: first.systemId, driveIds: drives.map(drive => drive.id), isOn: !first.isLit }}
      kept={kept}
    >
      {drives.length > 1 && (
        <p className="mono mt-0 text-second">{drives.map(drive => suffixOf(drive.serial)).join(' ')}</p>
      )}
    </IntentForm>
  )
}
