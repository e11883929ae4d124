import type { SimulatedArray } from '../array'

const link = (path: string) => ({ '@odata.id': `/redfish/v1/${path}` })

/** What only rows of this maker state of a pool: how its pieces are spread. */
export const spreadOf = (array: SimulatedArray, poolId: string) => {
  const pool = array.one('pools', poolId)
  if (pool.spread === null) return undefined
  const drives = new Map(array.all('drives').map(drive => [drive.id, drive]))
  const driveLink = (id: string) => link(`Chassis/${drives.get(id)?.enclosureId ?? ''}/Drives/${id}`)
  const { scheme, domain, banks, rebuildReserveBytes, strandedBytes } = pool.spread
  return {
    Mirefield: {
      ...(scheme.kind === 'copies'
        ? { Copies: scheme.copies }
        : { DataPieces: scheme.dataPieces, ParityPieces: scheme.parityPieces }),
      FailureDomain: domain,
      RawBytes: Number(pool.rawBytes),
      RebuildReserveBytes: Number(rebuildReserveBytes),
      StrandedBytes: Number(strandedBytes),
      Banks: banks.map(bank => ({
        Number: bank.number,
        Node: link(`Systems/${bank.nodeId}`),
        Cache: driveLink(bank.cache),
        Capacity: bank.capacity.map(driveLink),
      })),
    },
  }
}
