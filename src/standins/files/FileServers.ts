import type { FileShareEntity, SimulatedArray } from '../array'
import type { DirectoryTree, KnownAccount } from '../people'
import { mayMount, mayTouch, type Caller, type Verdict } from './fileRights'
import {
  readFile,
  removeFile,
  reserveFile,
  writeFile,
  type DiskBytes,
  type FileMarks,
  type Part,
  type Superblock,
} from './FileSystems'
import { Addresses, type Found } from './Addresses'
import { noLimits, overSoft, refusedWhy } from './limits'
import { filesAt } from './earlier'
import { listed } from './listed'
import { marksWithin } from './rootRights'
import { readFileSystem } from './shares'
import type { Done, FileWanted, Identity, Listed, ListWanted, NotDone, Who } from './served'
import type { Ways } from './Ways'
import { grantedBits, mayTouchBySmb, standing } from './smbRights'

/** A file that is read in one answer (bytes). */
const mostRead = 64 * 1024 * 1024
const readOnly = 'read-only file system'
const nothingThere: NotDone = { kind: 'not there', why: 'no such file or directory' }
const refused = (why: string): NotDone => ({ kind: 'refused', why })

/** What hosts reach over the network: the shares of all systems, by their services' names and addresses. Sources: RFC 1813, RFC 8881. */
export class FileServers {
  readonly addresses: Addresses

  constructor(
    arrays: readonly SimulatedArray[],
    readonly ways: Ways,
    private readonly people: DirectoryTree,
  ) {
    this.addresses = new Addresses(arrays, ways)
  }

  /** What somebody on a host may do with a share, tried gate by gate; nothing is left behind. */
  tryShare(server: string, path: string, from: string, as: Who): Record<'mount' | 'read' | 'write', string | null> {
    const entered = this.#entered(server, path, from, as)
    if (entered.kind !== 'done') return { mount: entered.why, read: entered.why, write: entered.why }
    const may = (isWrite: boolean) => {
      const tried = this.#touch(server, path, from, as, 'what.nobody.has', isWrite, () => ({
        kind: 'done',
        value: null,
      }))
      return tried.kind === 'done' ? null : tried.why
    }
    return { mount: null, read: may(false), write: may(true) }
  }

  /** Over NFS a share is mounted by its host, over SMB it is entered by whoever signs in. */
  #entered(server: string, path: string, from: string, as: Who): Done<null> {
    const found = this.addresses.find(server, path, from)
    if (!('kind' in found) && found.over === 'SMB') {
      if (!('account' in as)) return refused('logon failure')
      const known = this.#signedIn(found, as.account)
      if ('kind' in known) return known
    }
    return this.mount(server, path, from)
  }

  mount(server: string, path: string, from: string): Done<null> {
    const found = this.addresses.find(server, path, from)
    if ('kind' in found) return found
    if (found.over === 'SMB') return { kind: 'done', value: null }
    const verdict = mayMount(found.share.rules, this.#caller(from, { uid: 0, gid: 0, groups: [] }))
    return verdict.may ? { kind: 'done', value: null } : refused(verdict.why)
  }

  /** Signs in to a share over SMB; what follows is judged anew at every request. */
  #signedIn({ service, share }: Found, account: string): KnownAccount | NotDone {
    const known = service.joinedTo === undefined ? undefined : this.people.account(account)
    if (known === undefined) return refused('logon failure')
    return grantedBits(standing({ service, share }), known) === 0 ? refused('access denied by the share') : known
  }

  /** Who may do what, by the protocol over which it is asked. */
  #verdict(
    found: Found,
    from: string,
    as: Identity | { readonly account: string },
    marks: FileMarks,
    isWrite: boolean,
  ): Verdict {
    if (found.over === 'NFS')
      return 'account' in as
        ? { may: false, why: 'no account is known over this protocol' }
        : mayTouch(found.share.rules, this.#caller(from, as), marks, isWrite)
    if (!('account' in as)) return { may: false, why: 'logon failure' }
    const known = this.#signedIn(found, as.account)
    return 'kind' in known ? { may: false, why: known.why } : mayTouchBySmb(standing(found), known, marks, isWrite)
  }

  /** Writes a file over the network, as somebody; of one that is only reserved nothing is written. */
  write(server: string, path: string, from: string, as: Who, wanted: FileWanted): Done<string> {
    const { length, seed, head } = wanted
    return this.#touch(server, path, from, as, wanted.name, true, opened => {
      const { array, share, disk, superblock, file, name, as: effective } = opened
      const marks = file?.marks ?? marksWithin(superblock.root, effective)
      const limits = share.limits ?? noLimits
      const now = array.clock.now()
      const asked = { path: `/${name}`, uid: marks.uid, gid: marks.gid, bytes: length, head, now }
      const why = refusedWhy(limits, superblock.files, asked)
      if (why !== undefined) return refused(why)
      const sum =
        seed === null
          ? reserveFile(disk, superblock, name, length, marks, now) && ''
          : (writeFile(disk, superblock, name, length, seed, marks, head, now) ?? false)
      this.#counted(opened)
      return sum === false ? { kind: 'full', why: 'no space left on device' } : { kind: 'done', value: sum }
    })
  }

  /** What stands above its soft limit is noted once files have become otherwise. */
  #counted({ array, share }: Pick<Opened, 'array' | 'share'>): void {
    const { limits } = share
    if (limits === undefined || limits.quotas.length === 0) return
    const files = readFileSystem(array, share.fileSystemId).superblock?.files ?? []
    const noted = overSoft(limits, files, array.clock.now())
    if (JSON.stringify(noted) === JSON.stringify(limits.overSoft)) return
    array.store.commit([array.entry('fileShares', { ...share, limits: { ...limits, overSoft: noted } })])
  }

  read(server: string, path: string, from: string, as: Who, asked: string, part?: Part): Done<string> {
    return this.#touch(server, path, from, as, asked, false, ({ disk, superblock, name }) => {
      const length = superblock.files.find(each => each.path === name)?.length ?? 0
      if ((part?.length ?? length) > mostRead) return { kind: 'not there', why: 'file too large' }
      const sum = readFile(disk, superblock, name, part)
      return sum === undefined ? { kind: 'not there', why: 'no such file' } : { kind: 'done', value: sum }
    })
  }

  /** Files in the order of their paths, behind one of them. Who may read the root directory may list what lies in it. */
  list(server: string, path: string, from: string, as: Who, { within, after, limit }: ListWanted): Done<Listed> {
    const found = this.addresses.find(server, path, from)
    if ('kind' in found) return found
    const { disk, superblock, path: directory } = filesAt(found.array, found.share, within)
    if (superblock === undefined) return nothingThere
    const verdict = this.#verdict(found, from, as, superblock.root ?? rootOnly, false)
    if (!verdict.may) return refused(verdict.why)
    return { kind: 'done', value: listed(disk, superblock, directory, { after, limit }) }
  }

  /** Who may write to a directory may take files out of it. */
  remove(server: string, path: string, from: string, as: Who, name: string): Done<null> {
    const found = this.addresses.find(server, path, from)
    if ('kind' in found) return found
    const { disk, superblock, isPast } = filesAt(found.array, found.share, name)
    if (isPast) return refused(readOnly)
    if (superblock === undefined) return nothingThere
    const verdict = this.#verdict(found, from, as, superblock.root ?? rootOnly, true)
    if (!verdict.may) return refused(verdict.why)
    removeFile(disk, superblock, namedAs(found, superblock, name))
    this.#counted(found)
    return { kind: 'done', value: null }
  }

  #touch<T>(
    server: string,
    path: string,
    from: string,
    as: Who,
    asked: string,
    isWrite: boolean,
    act: (opened: Opened) => Done<T>,
  ): Done<T> {
    const found = this.addresses.find(server, path, from)
    if ('kind' in found) return found
    const { disk, superblock, path: own, isPast } = filesAt(found.array, found.share, asked)
    if (isPast && isWrite) return refused(readOnly)
    if (superblock === undefined) return nothingThere
    const name = namedAs(found, superblock, own)
    const file = superblock.files.find(each => each.path === name)
    // What is new is made in its directory; what is there has rights of its own.
    const marks = file?.marks ?? superblock.root ?? rootOnly
    const verdict = this.#verdict(found, from, as, marks, isWrite)
    return verdict.may
      ? act({ array: found.array, share: found.share, disk, superblock, file, name, as: verdict.as })
      : refused(verdict.why)
  }

  #caller(address: string, as: Identity): Caller {
    return { address, name: this.ways.nameOf(address), ...as }
  }
}

/** Over SMB a name is found in whatever letters it was made. */
function namedAs({ over }: Found, { files }: Superblock, name: string): string {
  if (over === 'NFS' || files.some(({ path }) => path === name)) return name
  return files.find(({ path }) => path.toLowerCase() === name.toLowerCase())?.path ?? name
}

interface Opened {
  readonly array: SimulatedArray
  readonly share: FileShareEntity
  readonly disk: DiskBytes
  readonly superblock: Superblock
  readonly file: Superblock['files'][number] | undefined
  readonly name: string
  readonly as: Identity
}
const rootOnly: FileMarks = { uid: 0, gid: 0, mode: '0755' }
