import type { KilledEstate } from './KilledEstate'

interface Items<T> {
  readonly items: readonly (T & { readonly id: string; readonly name: string })[]
}
const rule = (client: string, access: string) => ({
  client,
  access,
  squash: 'root',
  anonUid: 65_534,
  anonGid: 65_534,
  flavours: ['sys'],
})

/** Files, from the service to the share that is taken away, with the process killed in every change. */
export async function served(estate: KilledEstate, victim: string): Promise<void> {
  const { items: systems } = await estate.get<Items<object>>('/systems')
  const systemId = systems.find(({ name }) => name === 'bittern')?.id ?? ''
  const name = 'files.canal.marrowfield.example'
  const service = { systemId, name, firstAddress: '10.60.2.40/24', nameServers: '', searchSuffixes: '' }
  await estate.proven('serve-files', service)
  const { items: services } = await estate.get<Items<object>>('/file-services')
  const fileServiceId = services.find(each => each.name === name)?.id ?? ''
  const { items: pools } = await estate.get<Items<object>>('/pools')
  const poolId = pools.find(each => each.name === 'bittern-fast-01')?.id ?? ''
  const rights = { ownerUid: 2001, ownerGid: 300, mode: '0770' }
  const rules = [rule('10.60.0.0/16', 'rw')]
  const share = { fileServiceId, name: `share-${victim}`, size: '1 GiB', poolId, classId: '', ...rights, rules }
  const { facts } = await estate.proven('provision-share', share)
  const { items: shares } = await estate.get<Items<object>>('/shares')
  const shareId = shares.find(each => each.name === share.name)?.id ?? ''
  await estate.proven('set-share-rights', { shareId, ...rights, rules: [rule('10.60.0.0/16', 'ro'), ...rules] })
  await estate.proven('remove-share', { shareId, confirmedName: share.name })
  await estate.proven('stop-file-service', { fileServiceId })
  expectGone(await estate.get<Items<object>>('/file-services'))
  const volumeId = facts['volumeId'] ?? ''
  await estate.carried('remove-volume', { volumeId, confirmedName: share.name })
}

function expectGone({ items }: Items<object>): void {
  if (items.length > 0) throw new Error(`There is still ${items.map(({ name }) => name).join(', ')}.`)
}
