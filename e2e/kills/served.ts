import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ownEstate } from '../estate'
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
  const hostId = (await estate.get<Items<object>>('/hosts')).items.find(each => each.name === 'keep-1')?.id
  if (hostId !== undefined) {
    const looking = { shareId, hostId, personId: '', uid: 2001, gid: 300 }
    await estate.proven('report-files', looking)
  }
  await estate.proven('remove-share', { shareId, confirmedName: share.name })
  const { items: left } = await estate.get<Items<object>>('/file-systems')
  const fileSystemId = left.find(each => each.name === share.name)?.id ?? ''
  const quotas = [{ path: '/', of: 'tree', id: null, softBytes: null, hardBytes: '500000000', graceDays: 7 }]
  await estate.proven('share-again', { fileSystemId, fileServiceId, name: '', ...rights, rules, quotas })
  const { items: sharedAgain } = await estate.get<Items<object>>('/shares')
  const againId = sharedAgain.find(each => each.name === share.name)?.id ?? ''
  await estate.proven('remove-share', { shareId: againId, confirmedName: share.name })
  await people(estate, victim, { fileServiceId, poolId })
  await estate.proven('stop-file-service', { fileServiceId })
  expectGone(await estate.get<Items<object>>('/file-services'))
  const volumeId = facts['volumeId'] ?? ''
  await estate.carried('remove-volume', { volumeId, confirmedName: share.name })
}

/** A directory, a service that joins it, and a share over SMB, with the process killed in every change. */
async function people(
  estate: KilledEstate,
  victim: string,
  { fileServiceId, poolId }: { readonly fileServiceId: string; readonly poolId: string },
): Promise<void> {
  const { directory } = JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as {
    readonly directory: number
  }
  const address = `ldaps://127.0.0.1:${directory}`
  const base = 'dc=marrowfield,dc=example'
  const { fingerprint } = await estate.post<{ readonly fingerprint: string }>('/directory-looks', { address })
  const secret = async (purpose: string, text: string) =>
    (await estate.post<{ readonly id: string }>('/secrets', { purpose, text })).id
  const made = await estate.proven('register-directory', {
    ...{ name: `museum-${victim}`, address, fingerprint, baseDn: base, readAs: `cn=reader,ou=services,${base}` },
    secretId: await secret('directory', 'directory-demo'),
  })
  const directoryId = made.facts['directoryId'] ?? ''
  await estate.proven('join-directory', {
    ...{ fileServiceId, directoryId, joinAs: `uid=v.grier,ou=people,${base}` },
    secretId: await secret('joining', 'v.grier-demo'),
  })
  const { items } = await estate.get<Items<{ readonly durableId: string }>>('/principals?filter=photo-studio')
  const grants = items.slice(0, 1).map(({ durableId, name }) => ({ who: durableId, name, right: 'change' }))
  const share = { fileServiceId, name: `studio-${victim}`, size: '1 GiB', poolId, classId: '', over: 'SMB', grants }
  const { facts } = await estate.proven('provision-share', {
    ...share,
    ownerUid: 0,
    ownerGid: 3100,
    mode: '2770',
    rules: [],
  })
  const { items: shares } = await estate.get<Items<object>>('/shares')
  const shareId = shares.find(each => each.name === share.name)?.id ?? ''
  await estate.proven('set-service-grants', { fileServiceId, grants: grants.map(each => ({ ...each, right: 'read' })) })
  await estate.proven('remove-share', { shareId, confirmedName: share.name })
  await estate.proven('set-service-grants', { fileServiceId, grants: [] })
  await estate.proven('leave-directory', { fileServiceId })
  await estate.proven('forget-directory', { directoryId })
  await estate.carried('remove-volume', { volumeId: facts['volumeId'] ?? '', confirmedName: share.name })
}

function expectGone({ items }: Items<object>): void {
  if (items.length > 0) throw new Error(`There is still ${items.map(({ name }) => name).join(', ')}.`)
}
