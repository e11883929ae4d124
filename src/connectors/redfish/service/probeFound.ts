import type { Probe } from '@/core/estate'
import { formatBytes } from '@/core/units'
import type { Identity } from '@/core/views'
import type { Inventory } from '@/ports'

/** What a first look found, summed up for whoever decides whether to register the system. */
export function probeFound(
  { address, isEncrypted, certificateFingerprint, certificateTrouble }: Identity,
  inventory: Inventory,
): Omit<Probe, 'id' | 'at'> {
  const byWords = new Map<string, { words: string; count: number; bytes: bigint }>()
  for (const drive of inventory.drives) {
    const words = `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.protocol === 'NVMe' ? 'NVMe' : drive.media}${drive.role === 'unassigned' ? ', unassigned' : ''}`
    const kind = byWords.get(words) ?? { words, count: 0, bytes: 0n }
    byWords.set(words, { words, count: kind.count + 1, bytes: kind.bytes + drive.capacityBytes })
  }
  const { uuid, maker, model, serial, firmware, redfishVersion } = inventory.identity
  return {
    address,
    isEncrypted,
    certificateFingerprint,
    certificateTrouble,
    uuid,
    maker,
    model,
    serial,
    firmware,
    redfishVersion,
    controllers: inventory.controllers.length,
    enclosures: inventory.enclosures.length,
    drives: [...byWords.values()],
    pools: inventory.pools.length,
    volumes: inventory.volumes.length,
  }
}
