import { decidingRule, exportTable, type Asking } from './exportRules'
import { mayBehind } from './mayFile'
import type { FileIdentity } from './modeBits'
import type { Right } from './rightsMatrix'
import { allGrants, mayBySmb, type SignedIn } from './shareGrants'
import type { SmbRights } from './smbTurning'
import type { ShareRights } from './turning'

const rightOf = (isRead: boolean, isWrite: boolean): Right =>
  isWrite ? (isRead ? 'change' : 'write only') : isRead ? 'read' : 'none'

/** What somebody may over SMB, wherever they sign in from. */
export function smbRight(rights: SmbRights, somebody: SignedIn): Right {
  const may = (operation: 'read' | 'write') => mayBySmb(allGrants(rights), somebody, operation, rights.root).allowed
  return rightOf(may('read'), may('write'))
}

/** What somebody may over NFS from each of some hosts. */
export function nfsRights({ rules, root }: ShareRights, identity: FileIdentity, hosts: readonly Asking[]): Right[] {
  const table = exportTable(rules)
  return hosts.map(host => {
    const index = decidingRule(table, host)
    const may = (operation: 'read' | 'write') =>
      mayBehind(table, index, { ...identity, flavour: 'sys', operation }, root).allowed
    return rightOf(may('read'), may('write'))
  })
}
