import {
  askingFrom,
  fileGates,
  nfsRights,
  signedIn,
  smbGates,
  smbRight,
  smbRightsOf,
  suppose,
  type Gate,
  type Right,
  type Sender,
  type SignedIn,
} from '@/core/access'
import type { Share } from '@/core/estate'
import type { PersonPage } from '@/core/views'
import { shareState } from '../provision/files'
import { speaks } from './rightsOf'

const somebodyOf = ({ groups }: PersonPage, person: PersonPage['person']) =>
  signedIn(person, new Map(groups.map(each => [each.durableId, each])))
/** Somebody as they would be; undefined where nothing is supposed. */
const supposedIn = ({ person, supposed }: PersonPage) =>
  supposed === null ? undefined : suppose(person, { what: supposed.what, groupId: supposed.group.durableId })
const rootOf = ({ ownerUid, ownerGid, mode, acl }: Share) => ({ uid: ownerUid, gid: ownerGid, mode, acl })
const order: readonly Right[] = ['none', 'write only', 'read', 'change']
/** The most of several rights. */
export const widest = (rights: readonly Right[]): Right =>
  rights.reduce<Right>((most, right) => (order.indexOf(right) > order.indexOf(most) ? right : most), 'none')

/** What somebody may do with one share: over SMB from anywhere, over NFS from the hosts that are known. */
function lineOf(page: PersonPage, is: SignedIn, share: Share) {
  const hosts = page.hosts.map(askingFrom)
  const root = rootOf(share)
  const byHost = speaks(share, 'NFS') ? nfsRights({ rules: share.rules, root }, is, hosts) : []
  const overNfs = widest(byHost)
  const overSmb = speaks(share, 'SMB') ? smbRight(smbRightsOf(share), is) : undefined
  return {
    share,
    overSmb,
    overNfs: speaks(share, 'NFS') ? overNfs : undefined,
    hosts: byHost.filter(right => right !== 'none').length,
    why: whyOf(page, is, share, widest([overSmb ?? 'none', overNfs])),
  }
}

/** The gate that bars a write, or a read of whom nothing is let. */
function whyOf(page: PersonPage, is: SignedIn, share: Share, right: Right): string {
  const operation = right === 'none' ? ('read' as const) : ('write' as const)
  const service = page.services.find(({ id }) => id === share.fileServiceId)
  const state = {
    ...shareState(share, undefined),
    ...{ addresses: service?.addresses ?? [], joinedTo: service?.joinedTo ?? null },
  }
  const root = rootOf(share)
  const asked = (host: Sender) => ({
    ...askingFrom(host),
    ...{ uid: is.uid, gid: is.gid, groups: is.groups, flavour: 'sys' as const, operation },
  })
  const answers: readonly { readonly allowed: boolean; readonly gates: readonly Gate[] }[] = speaks(share, 'SMB')
    ? [smbGates(smbRightsOf(share), state, is, operation)]
    : page.hosts.map(host => fileGates({ rules: share.rules, root }, state, asked(host)))
  const allowed = answers.find(each => each.allowed)
  if (allowed !== undefined) return 'nothing: every gate lets a write pass'
  // Of several hosts the one from which it comes furthest.
  const [best] = [...answers].sort((a, b) => passed(b.gates) - passed(a.gates))
  const stop = best?.gates.find(each => each.state === 'stops')
  return stop === undefined
    ? 'no host is known that could reach it'
    : `${operation}: ${stop.label.toLowerCase()}, ${stop.why}`
}

const passed = (gates: readonly Gate[]) => gates.findIndex(each => each.state === 'stops')

/** What somebody may with each share, and what they would. */
export function linesOf(page: PersonPage) {
  const is = somebodyOf(page, page.person)
  const other = supposedIn(page)
  const would = other === undefined ? undefined : somebodyOf(page, other)
  return page.shares.map(share => {
    const now = lineOf(page, is, share)
    const then = would === undefined ? undefined : lineOf(page, would, share)
    const isOtherwise = then !== undefined && (then.overSmb !== now.overSmb || then.overNfs !== now.overNfs)
    return { ...now, then, isOtherwise }
  })
}
