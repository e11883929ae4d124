import { plainAddress } from './addresses'
import { modifyScript } from './ldif'

/** A name that clients know, and what is to answer to it. */
export interface TakenName {
  /** In full, as clients write it: `oldfiles.museum.example`. */
  readonly oldName: string
  /** To which it leads now. */
  readonly addresses: readonly string[]
  /** To which it shall lead. */
  readonly newName: string
  /** The service's own account in its directory; null where it belongs to none. */
  readonly account: string | null
}

/** What takes a name over, and what gives it back: to be carried out by whoever looks after names and the directory. */
export interface TakeOverScripts {
  /** Updates of the name server. Source: RFC 2136, as nsupdate(1) reads them. */
  readonly names: string
  readonly namesBack: string
  /** Names by which tickets for the service are asked. Source: RFC 2849; null where it belongs to no directory. */
  readonly tickets: string | null
  readonly ticketsBack: string | null
}

/** RFC 1035, 2.3.4 and RFC 1123, 2.1. */
const fullName = /^(?=.{1,253}$)[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?(\.[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?)+$/i
/** So long others keep what they have been told (seconds): as long as the switch takes to be seen everywhere. */
export const takeOverSeconds = 300

/** Why a name cannot be taken over; undefined where it can. */
export function takeOverTrouble({ oldName, addresses, newName }: TakenName): string | undefined {
  if (!fullName.test(oldName)) return 'Give the old name in full, such as oldfiles.museum.example.'
  // It is as its system states it, and goes into scripts that somebody carries out.
  if (!fullName.test(newName)) return 'The name of the service is none that a name server can lead to.'
  if (oldName.toLowerCase() === newName.toLowerCase()) return 'That is the name of the service itself.'
  if (addresses.length === 0) return 'The name leads nowhere now: nothing has to be taken over, it can be set.'
  return undefined
}

/**
 * Scripts that turn a name over and back. Each is carried out only where what stands there is still what was seen: a name that somebody
 * has changed meanwhile stays as it is.
 */
export function takeOverScripts({ oldName, addresses, newName, account }: TakenName): TakeOverScripts {
  const [old, target] = [`${oldName}.`, `${newName}.`]
  const records = addresses.flatMap(each => {
    const address = plainAddress(each)
    return address === undefined ? [] : [`${address.includes(':') ? 'AAAA' : 'A'} ${address}`]
  })
  const types = [...new Set(records.map(each => each.split(' ')[0] ?? 'A'))]
  const script = (lines: readonly string[]) => [...lines, 'send', ''].join('\n')
  return {
    names: script([
      ...records.map(each => `prereq yxrrset ${old} IN ${each}`),
      ...types.map(type => `update delete ${old} ${type}`),
      `update add ${old} ${takeOverSeconds} IN CNAME ${target}`,
    ]),
    namesBack: script([
      `prereq yxrrset ${old} IN CNAME ${target}`,
      `update delete ${old} CNAME`,
      ...records.map(each => `update add ${old} ${takeOverSeconds} IN ${each}`),
    ]),
    tickets: account === null ? null : ticketScript(account, 'add', oldName),
    ticketsBack: account === null ? null : ticketScript(account, 'delete', oldName),
  }
}

const ticketScript = (account: string, what: 'add' | 'delete', name: string) =>
  modifyScript(
    account,
    what,
    'servicePrincipalName',
    ['cifs', 'nfs', 'host'].map(service => `${service}/${name}`),
  )

/** Where something of the old server lies now. */
export interface MovedPath {
  readonly oldPath: string
  /** By its name; undefined where it is none of those that are there. */
  readonly share: string | undefined
  /** Whether clients keep the path that they have. */
  readonly isKept: boolean
  /** As clients write it from now on. */
  readonly newPath: string | undefined
}

/** Reads lines of old paths, each with the share in which it lies now; one alone is looked for among the paths of shares. */
export function movedPaths(
  text: string,
  oldName: string,
  shares: readonly { readonly name: string; readonly path: string; readonly isNfs: boolean }[],
): MovedPath[] {
  return text
    .split('\n')
    .map(each => each.trim())
    .filter(each => each !== '')
    .slice(0, 500)
    .map(each => {
      const [oldPath = '', named] = each.split(/\s*(?:,|->|→|\t)\s*/)
      const share = shares.find(({ name, path }) =>
        named === undefined || named === '' ? path === oldPath : name === named,
      )
      const newPath = share === undefined ? undefined : share.isNfs ? share.path : `//${oldName}/${share.name}`
      const isKept = newPath?.toLowerCase() === oldPath.toLowerCase() && (share?.isNfs !== true || newPath === oldPath)
      return { oldPath, share: share?.name, isKept, newPath }
    })
}
