import type { ChangePorts, MappingSeen, StorageSystem } from '@/ports'

/** Takes a mapping away, from the system and from the records. */
export async function unmapped(
  system: StorageSystem,
  volumeLocator: string,
  { locator, groupName }: Pick<MappingSeen, 'locator' | 'groupName'>,
  systemId: string,
  ports: ChangePorts,
): Promise<void> {
  await system.unmapVolume(locator, { volumeLocator, groupName })
  await ports.records.collect(systemId)
  await ports.records.gone(systemId, [locator])
}
