import type { FileServiceEntity, FileShareEntity, SimulatedArray } from '../array'
import { instancesOf, speaksSmb } from './fileServices'
import type { NotDone } from './served'
import type { Ways } from './Ways'

/** Sources: RFC 8881, 2.9.3; MS-SMB2, 2.1. */
export const ports = { NFS: 2049, SMB: 445 } as const

export interface Found {
  readonly array: SimulatedArray
  readonly service: FileServiceEntity
  readonly share: FileShareEntity
  readonly over: 'NFS' | 'SMB'
}

/** What answers at the addresses of the network: the services of all systems. */
export class Addresses {
  constructor(
    private readonly arrays: readonly SimulatedArray[],
    private readonly ways: Ways,
  ) {}

  /** The address that a name leads to; an address is itself. */
  addressOf(server: string, from: string): string | undefined {
    const all = this.ways.lookUp(server, from).addresses
    // A client tries the addresses of a name one after another.
    return all.find(address => this.isOpen(address, from)) ?? all[0]
  }

  /** Whether something answers at an address, and nothing on the way there bars it. */
  isOpen(address: string, from: string): boolean {
    return this.#serving(address) !== undefined && !this.ways.isBarred(address, from)
  }

  /** What listens at a port of an address, as it is seen from a host, and what it speaks; null where nothing gets through to there. */
  speaksAt(address: string, port: number, from: string): string | null {
    const serving = this.ways.isBarred(address, from) ? undefined : this.#serving(address)
    if (serving === undefined) return null
    if (port === ports.NFS) return 'NFSv4.2'
    return port === ports.SMB && serving.service.joinedTo !== undefined ? 'SMB 3.1.1' : null
  }

  /** A share, as a host finds it by a server's name and a path. */
  find(server: string, path: string, from: string): Found | NotDone {
    const address = this.addressOf(server, from)
    if (address === undefined) return { kind: 'silent', why: `no address for ${server}` }
    const serving = this.#serving(address)
    if (serving === undefined || this.ways.isBarred(address, from))
      return { kind: 'silent', why: `${address} does not answer` }
    // Over SMB a share has a name, and no path.
    const over = path.startsWith('//') ? ('SMB' as const) : ('NFS' as const)
    const share = serving.array
      .all('fileShares')
      .find(
        each =>
          each.fileServiceId === serving.service.id &&
          (over === 'NFS'
            ? each.path === path && each.protocols.some(protocol => protocol.startsWith('NFS'))
            : `//${each.name}`.toLowerCase() === path.toLowerCase() && speaksSmb(each.protocols)),
      )
    return share === undefined ? { kind: 'not there', why: 'no such share' } : { ...serving, share, over }
  }

  #serving(address: string) {
    for (const array of this.arrays)
      for (const service of array.all('fileServices'))
        if (instancesOf(array, service).some(each => each.address === address && each.standsOn !== null))
          return { array, service }
    return undefined
  }
}
