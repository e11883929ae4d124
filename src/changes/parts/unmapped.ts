import type { ChangePorts, MappingSeen } from '@/ports'

/** Takes a mapping away, from the system and from the records. */
export async function unmapped(
  volumeLocator: string,
  { locator, groupName }: Pick<MappingSeen, 'locator' | 'groupName'>,
  systemId: string,
  ports: ChangePorts,
): Promise<void> {
  await (await ports.of(systemId, 'mappings')).remove(locator, { volumeLocator, groupName })
  await ports.records.collect(systemId)
  await ports.records.gone(systemId, [locator])
}
