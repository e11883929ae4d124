import { expect } from '@playwright/test'
import type { KilledEstate } from './KilledEstate'

interface Used {
  readonly poolId: string
  readonly otherId: string
  readonly hostGroupId: string
}
interface KnownHost {
  readonly id: string
  readonly agentAddress: string
  readonly hostGroupId: string
}

/** What an application does with its volumes, from the set to the file that comes back, with the process killed in every change. */
export async function used(
  estate: KilledEstate,
  victim: string,
  { poolId, otherId, hostGroupId }: Used,
): Promise<void> {
  const names = [`set-${victim}-01`, `set-${victim}-02`]
  const made = await estate.proven('provision-volumes', {
    list: `set-${victim}-{01..02}, 1 GiB`,
    classId: '',
    poolId,
    isThin: true,
    isTogether: true,
    hostGroupId,
    consistencyGroup: `set-${victim}`,
  })
  const { items } = await estate.get<{ items: { id: string; name: string }[] }>(`/volumes?filter=set-${victim}&limit=9`)
  const volumeIds = names.map(name => items.find(each => each.name === name)?.id ?? '')
  const consistencyGroupId = made.facts['consistencyGroupId'] ?? ''
  await estate.proven('snapshot-group', { consistencyGroupId, name: 'evening', reason: 'before the kills' })
  await estate.proven('dissolve-consistency-group', { consistencyGroupId })
  const again = await estate.proven('form-consistency-group', { volumeIds, name: `set-${victim}` })
  await estate.proven('dissolve-consistency-group', { consistencyGroupId: again.facts['consistencyGroupId'] })
  const [volumeId = ''] = volumeIds
  const { items: hosts } = await estate.get<{ items: KnownHost[] }>('/hosts')
  const host = hosts.find(each => each.hostGroupId === hostGroupId)
  const place = `/srv/set-${victim}`
  const ready = { volumeId, hostId: host?.id ?? '', fileSystem: 'xfs', path: place, isRestarted: false }
  await estate.proven('prepare-volume', ready)
  const file = `${place}/ledger`
  await estate.host(host?.agentAddress ?? '', '/files/write', { path: file, lengthBytes: 2_000_000, seed: victim })
  const { facts } = await estate.proven('take-snapshot', { volumeId, name: `with-file-${victim}`, reason: '' })
  await estate.host(host?.agentAddress ?? '', '/files/remove', { path: file })
  const wish = { volumeId, snapshotId: '', hostId: host?.id ?? '', path: file, to: '' }
  const back = await estate.proven('bring-back-file', wish)
  expect(back.facts['snapshotId']).toBe(facts['snapshotId'])
  await estate.proven('expand-volume', { volumeId, size: '2 GiB' })
  await estate.proven('limit-volume', { volumeId, mostRequests: 200, mostThroughput: '64 MiB' })
  await estate.proven('limit-volume', { volumeId, mostRequests: null, mostThroughput: '' })
  await estate.proven('convert-volume', { volumeId, isThin: false })
  await estate.proven('convert-volume', { volumeId, isThin: true })
  const kept = { keepLast: 2, hourly: null, daily: null, weekly: null, monthly: null, yearly: null }
  const own = { volumeIds: [volumeId], snapshotRule: 'FREQ=DAILY', timeZone: 'UTC', ...kept }
  await estate.proven('schedule-volumes', { ...own, isOwn: true })
  await estate.proven('schedule-volumes', { ...own, isOwn: false })
  const forward = { hostId: host?.id ?? '', domain: 'files.example' }
  await estate.proven('forward-names', { ...forward, server: '10.0.0.53:53' })
  await estate.proven('forward-names', { ...forward, server: '' })
  const secret = { purpose: 'chap', text: 'a-secret-of-16-c' }
  const { id: secretId } = await estate.post<{ readonly id: string }>('/secrets', secret)
  const signIn = { hostId: host?.id ?? '', systemSecretId: '' }
  await estate.proven('set-host-sign-in', { ...signIn, signIn: 'one-way', secretId })
  await estate.proven('set-host-sign-in', { ...signIn, signIn: 'nothing', secretId: '' })
  await estate.proven('move-volume', { volumeId, poolId: otherId, classId: '', ratePercent: 30 })
  for (const [index, name] of names.entries())
    await estate.proven('remove-volume', { volumeId: volumeIds[index], confirmedName: name })
  // One is erased by name, before its time.
  await estate.proven('delete-held-volume', { volumeId, confirmedName: names[0] })
}
