import { allGrants, exportTable, mayBySmb, mayFile, signedIn, type SignedIn } from '@/core/access'
import { hasAgent, type FileService, type Share } from '@/core/estate'
import { connectionHops, filePorts, isBarredOnTheWay, wayOut, type Reached } from '@/core/network'
import type { ConnectionTest } from '@/core/views'
import { hostAgent } from '@/connectors'
import { settings, type Scope } from '@/records'
import { keepConnectionTest } from '@/records/connections'
import { agentSecretId } from '@/records/inventory'
import { object } from '@/records/objects'
import { somebody } from '@/records/queries'
import { openSecret } from '@/records/secrets'
import { NoAgent, NoShare, NobodyThere } from './errors'

export interface ConnectionAsked {
  readonly hostId: string
  readonly shareId: string
  readonly protocol: 'NFS' | 'SMB'
  /** Of a directory; blank for numbers, which only NFS takes. */
  readonly personId: string
  readonly uid: number
  readonly gid: number
}

/**
 * Lets a host go the whole way to a share as somebody, hop by hop: its name, its address, the route, the port, the protocol, the sign-in,
 * the rights. Where the way is barred, it tries the service's own addresses too. Nothing is left on the host or in the share; what was
 * found is kept.
 * @throws {NoAgent | NoShare | NobodyThere} and what the connector throws
 */
export async function testConnection(
  scope: Scope,
  key: Buffer,
  asked: ConnectionAsked,
  madeBy: string,
  stop: AbortSignal,
): Promise<ConnectionTest> {
  const host = await object(scope, 'hosts', asked.hostId)
  if (host === undefined || !hasAgent(host)) throw new NoAgent()
  const share = await object(scope, 'shares', asked.shareId)
  const service = share === undefined ? undefined : await object(scope, 'fileServices', share.fileServiceId)
  if (share === undefined || service === undefined) throw new NoShare()
  const { account, is, words } = await caller(scope, asked)
  const { addresses, nameServer } = await settings(scope)
  const secretId = await agentSecretId(scope, host.agentAddress)
  const credential = secretId === undefined ? undefined : await openSecret(scope, key, secretId, 'agent')
  const { network } = await hostAgent(host.agentAddress, stop, addresses, credential)
  const to = reached(share, service, asked.protocol, host.addresses[0] ?? '', is)
  const way = await network.way(service.name)
  const keep = (found: Pick<ConnectionTest, 'hops' | 'wayOut'>) =>
    keepConnectionTest(scope, {
      ...{ hostId: host.id, shareId: share.id, protocol: asked.protocol, caller: words, madeBy },
      ...found,
    })
  const untried = connectionHops(way, to, undefined)
  if (isBarredOnTheWay(untried))
    return keep({ hops: untried, wayOut: wayOut(way, to, await gettingThrough(network, to), nameServer) })
  const began = performance.now()
  const tried = await network.tryShare(
    service.name,
    asked.protocol === 'SMB' ? `//${share.name}` : share.path,
    asked.protocol === 'SMB' ? { account } : { uid: is.uid, gid: is.gid, groups: is.groups },
  )
  return keep({ hops: connectionHops(way, to, { ...tried, milliseconds: performance.now() - began }), wayOut: null })
}

type Asking = Awaited<ReturnType<typeof hostAgent>>['network']

/** The service's own addresses, each with whether the host gets through to it. */
async function gettingThrough({ way }: Pick<Asking, 'way'>, { addresses, over }: Reached) {
  const found = []
  for (const address of addresses) {
    const { ports } = await way(address)
    found.push({ address, isOpen: ports.some(({ port, isOpen }) => isOpen && port === filePorts[over]) })
  }
  return found
}

/** Who tries it: somebody of a directory, or numbers over NFS. */
async function caller(scope: Scope, { personId, protocol, uid, gid }: ConnectionAsked) {
  if (personId === '') {
    if (protocol === 'SMB') throw new NobodyThere()
    const is: SignedIn = { uid, gid, groups: [], durableId: '', groupIds: [], isDisabled: false }
    return { account: '', is, words: `uid ${uid}, gid ${gid}` }
  }
  const found = await somebody(scope, personId)
  if (found === undefined) throw new NobodyThere()
  const { person, groups } = found
  return {
    account: person.account,
    is: signedIn(person, new Map(groups.map(each => [each.durableId, each]))),
    words: person.name,
  }
}

/** What is to be reached, and what its rights say of whoever tries. */
function reached(
  share: Share,
  service: FileService,
  over: 'NFS' | 'SMB',
  clientAddress: string,
  is: SignedIn,
): Reached {
  const root = { uid: share.ownerUid, gid: share.ownerGid, mode: share.mode, acl: share.acl }
  const table = exportTable(share.rules)
  const answer = (operation: 'read' | 'write') =>
    over === 'SMB'
      ? mayBySmb(allGrants(share), is, operation, root)
      : mayFile(table, { ...is, clientAddress, clientName: null, flavour: 'sys', operation }, root)
  const read = answer('read')
  return {
    name: service.name,
    addresses: service.instances.map(({ address }) => address),
    over,
    share: share.name,
    isServedSo: share.protocols.some(each => each.startsWith(over)),
    // Behind the root's own gate nothing stands in the way of mounting it.
    may: {
      mount: read.decidedBy === 'mode-bits' || read.decidedBy === 'acl',
      read: read.allowed,
      write: answer('write').allowed,
    },
  }
}
