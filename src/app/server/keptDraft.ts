import type { ChangeRecord } from '@/core/views'
import { changeById } from '@/records/changes'
import { reader } from './guard'
import { isUuid } from '@/core/input'

/** The draft that an address names, if it is still one and of that kind. */
export async function keptDraft(id: string | undefined, kind: string): Promise<ChangeRecord | undefined> {
  if (id === undefined || !isUuid(id)) return undefined
  const change = await changeById((await reader()).scope, id)
  return change?.kind === kind && (change.state === 'draft' || change.state === 'checked') ? change : undefined
}

/** Where a draft is edited; undefined for a change that is none. */
export function draftHref({ id, kind, state, intent }: ChangeRecord): string | undefined {
  if (state !== 'draft' && state !== 'checked') return undefined
  const of = (name: string) => encodeURIComponent(String(intent[name] ?? ''))
  switch (kind) {
    case 'register-system':
      return `/build?draft=${kind}&change=${id}`
    case 'create-pool':
      return `/build/systems/${of('systemId')}?draft=${kind}&change=${id}`
    case 'remove-pool':
      return `/build/pools?draft=${kind}&change=${id}&sel=${of('poolId')}`
    case 'provision-volume':
      return `/provision?draft=${kind}&change=${id}`
    case 'register-host':
      return `/provision/hosts?draft=${kind}&change=${id}`
    case 'forget-missing':
    case 'form-cluster':
    case 'grow-cluster':
    case 'shrink-cluster':
    case 'dissolve-cluster':
      return `/build/systems/${of('systemId')}?draft=${kind}&change=${id}`
    case 'set-storage-network':
    case 'set-switch-port':
    case 'set-node-clock':
    case 'set-restart-service':
      return `/build/network?system=${of('systemId')}&draft=${kind}&change=${id}&port=${of('switchPortId')}&node=${of('nodeId')}`
    case 'erase-drive':
      return `/build/drives?draft=${kind}&change=${id}&drive=${of('driveId')}`
    case 'set-locate-light':
      return `/build/drives?draft=${kind}&change=${id}&drive=${Array.isArray(intent['driveIds']) ? String(intent['driveIds'][0]) : ''}`
    case 'sign-exception':
      return `/build/network?draft=${kind}&change=${id}&finding=${of('findingKey')}`
    case 'import-catalogue':
      return `/build/network?draft=${kind}&change=${id}`
    case 'forget-system':
    case 'delete-held-volume':
      return undefined
    default:
      return `/provision?draft=${kind}&change=${id}&sel=${of('volumeId')}`
  }
}
