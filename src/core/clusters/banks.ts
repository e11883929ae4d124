import type { Drive, Node } from '../estate'
import type { DriveRole } from './roles'

/** One cache drive and the capacity drives behind it in one node; lost together when the cache drive is lost. */
export interface Bank {
  readonly nodeId: string
  /** In its node, counted from 1. */
  readonly number: number
  readonly cacheDriveId: string
  readonly capacityDriveIds: readonly string[]
}

export interface LaidBanks {
  readonly banks: readonly Bank[]
  /** Chosen drives for which there is no place, with the reason. */
  readonly unplaced: readonly { readonly driveId: string; readonly why: string }[]
}

type Chosen = Pick<Drive, 'id' | 'capacityBytes' | 'bay'> & { readonly role: DriveRole }

/**
 * Puts a node's chosen drives into banks: one for each cache drive, capacity dealt out largest first so that all banks hold about
 * the same. What goes beyond the node's limit stays out.
 * @param firstNumber of the first bank: a node that grows has some already
 */
export function layBanks(
  node: Pick<Node, 'id' | 'name' | 'mostCapacityDrives'>,
  drives: readonly Chosen[],
  firstNumber = 1,
): LaidBanks {
  const caches = drives.filter(drive => drive.role === 'cache').sort((a, b) => a.bay - b.bay)
  const capacity = drives
    .filter(drive => drive.role === 'capacity')
    .sort((a, b) => (a.capacityBytes === b.capacityBytes ? a.bay - b.bay : a.capacityBytes > b.capacityBytes ? -1 : 1))
  if (caches.length === 0) {
    const why = `${node.name} has no cache drive to put it behind.`
    return { banks: [], unplaced: capacity.map(({ id }) => ({ driveId: id, why })) }
  }
  const filled = caches.map(
    ({ id }, index): Filled => ({ number: firstNumber + index, cacheDriveId: id, own: [], bytes: 0n }),
  )
  const why = `${node.name} takes at most ${node.mostCapacityDrives} capacity drives a bank.`
  const left = dealOut(capacity, filled, node.mostCapacityDrives)
  return {
    banks: filled.map(bank => ({
      nodeId: node.id,
      number: bank.number,
      cacheDriveId: bank.cacheDriveId,
      capacityDriveIds: [...bank.own].sort((a, b) => a.bay - b.bay).map(drive => drive.id),
    })),
    unplaced: left.map(({ id }) => ({ driveId: id, why })),
  }
}

interface Filled {
  readonly number: number
  readonly cacheDriveId: string
  readonly own: Chosen[]
  /** What the bank holds so far. */
  bytes: bigint
}

/** Gives each drive to the bank that holds least. @returns those for which no bank has room */
function dealOut(drives: readonly Chosen[], banks: readonly Filled[], mostDrives: number): readonly Chosen[] {
  const left: Chosen[] = []
  for (const drive of drives) {
    const least = banks
      .filter(bank => bank.own.length < mostDrives)
      .reduce<Filled | undefined>(
        (best, bank) => (best === undefined || bank.bytes < best.bytes ? bank : best),
        undefined,
      )
    if (least === undefined) {
      left.push(drive)
      continue
    }
    least.own.push(drive)
    least.bytes += drive.capacityBytes
  }
  return left
}
