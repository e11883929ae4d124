import { nfsVersions, smbVersions, type Estate, type FileProtocol, type FileService, type Settled } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { ChangePorts, ShareWanted } from '@/ports'
import type { Evidence } from '../../ChangeKind'
import { absent, rule } from '../checks'
import { standsAsAsked } from '../standsAsAsked'
import { overOf, shareRightsFields } from './shareChecks'
import { triedShare } from './shareTrials'
import { triedByAll } from './smbTrials'

/** How a share is served; left out: over NFS. */
export interface ServedBy {
  readonly name: string
  readonly over?: 'NFS' | 'SMB' | 'NFS and SMB'
}

export const protocolsOf = ({ over = 'NFS' }: ServedBy): FileProtocol[] => [
  ...(over === 'SMB' ? [] : nfsVersions),
  ...(over === 'NFS' ? [] : smbVersions),
]

/** That no share of a service has the name. */
export const shareNameFree = ({ shares }: Estate, name: string, service: FileService | undefined): PlanCheck =>
  absent(
    'name-free',
    shares.find(each => each.fileServiceId === service?.id && each.name === name),
    'No share there has the name.',
    each => `${each.name} is shared there already.`,
    { field: 'name' },
  )

/** Over SMB people sign in by the directory of the service, and letters of names are not told apart by size. */
export function smbChecks(estate: Estate, { name, over }: ServedBy, service: FileService | undefined): PlanCheck[] {
  if (over === undefined || over === 'NFS' || service === undefined) return []
  const twin = estate.shares.find(
    each =>
      each.fileServiceId === service.id &&
      each.name !== name &&
      each.name.toLowerCase() === name.toLowerCase() &&
      overOf(each.protocols).isSmb,
  )
  return [
    rule(
      'joined',
      service.joinedTo !== null,
      `People sign in by ${service.joinedTo ?? ''}.`,
      `${service.name} belongs to no directory: over SMB nobody could sign in.`,
      { field: 'over', remedy: 'Take the service into a directory first, or share it over NFS.' },
    ),
    absent(
      'no-twin',
      twin,
      'No share there has the name in other letters.',
      each => `${each.name} is the same name over SMB.`,
      { field: 'name' },
    ),
  ]
}

/** What a change that has made a share has settled of it; nothing where it has made none. @param locator of the share */
export const settledShare = (
  steps: readonly { readonly step: { readonly step: string; readonly systemId: string } }[],
  locator: string | undefined,
): Settled[] =>
  steps.flatMap(({ step: { step, systemId } }) => {
    const fields =
      step === 'export'
        ? ([...shareRightsFields, 'quotas', 'fileRules'] as const)
        : step === 'show'
          ? (['snapshotDirectory'] as const)
          : []
    return locator === undefined || fields.length === 0
      ? []
      : [{ kind: 'shares' as const, of: { systemId, locator }, fields }]
  })

/** That a new share stands as it was asked for, and that hosts and people find of it what its rights say. */
export async function provenShare(
  ports: ChangePorts,
  systemId: string,
  locator: string,
  wanted: ShareWanted,
): Promise<Evidence[]> {
  const stated = await (await ports.of(systemId, 'shares')).at(locator)
  const estate = await ports.estate()
  const service = estate.fileServices.find(
    each => each.locator === wanted.fileServiceLocator && each.systemId === systemId,
  )
  const evidence = [standsAsAsked('The system states the share as it was asked for', stated, wanted)]
  if (service === undefined) return evidence
  return [...evidence, ...(await triedByAll(ports, estate, triedShare(wanted, service)))]
}
