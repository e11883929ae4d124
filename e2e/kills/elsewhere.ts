import { expect } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { arrayAddress, ownEstate } from '../estate'
import { fleet } from '../steps'
import type { KilledEstate } from './KilledEstate'

interface Items {
  readonly items: readonly {
    readonly id: string
    readonly name: string
    readonly role?: string
    readonly state?: string
  }[]
}
interface Mirrored {
  readonly volume: { readonly naa: string; readonly mirror: { readonly state: string } | null }
}
interface Given {
  readonly poolId: string
  readonly hostGroupId: string
}

/** The other system of the pair, with a pool of its own. */
async function partner(estate: KilledEstate, victim: string) {
  const address = arrayAddress('curlew')
  await estate.heard(address)
  const access = { userName: 'admin', password: 'curlew-demo', isPlainHttpAccepted: true }
  const probe = await estate.post<{ id: string }>('/probes', { address, ...access })
  const plain = { siteId: '', isPlainHttpAccepted: true, acceptedFingerprint: '' }
  await estate.proven('register-system', { probeId: probe.id, name: 'curlew', ...plain })
  const systemId = await estate.systemId('curlew')
  const { items } = await estate.get<Items>(`/drives?systemId=${systemId}`)
  const free = items.filter(each => each.role === 'unassigned' && each.state === 'fine').map(({ id }) => id)
  const layout = { scheme: { kind: 'parity', parityDrives: 2 }, maxGroupDrives: 12, snapshotSharePercent: 10 }
  const pool = { ...layout, systemId, name: `far-${victim}`, driveIds: free.slice(0, 8), spareCount: 0 }
  return { systemId, poolId: (await estate.proven('create-pool', pool)).facts['poolId'] ?? '' }
}

/** What a host writes while the other system does not answer breaks the mirror. */
async function broken(estate: KilledEstate, volumeId: string): Promise<void> {
  const { volume } = await estate.get<Mirrored>(`/volumes/${volumeId}`)
  const { hosts } = JSON.parse(readFileSync(join(ownEstate().data, 'fleet-ports.json'), 'utf8')) as {
    hosts: Record<string, number>
  }
  await fleet('fault', 'curlew', 'not-answering')
  const body = { offsetBytes: '0', lengthBytes: 4096, seed: 'alone' }
  await expect
    .poll(
      () =>
        fetch(`http://127.0.0.1:${hosts['register-1']}/agent/devices/${volume.naa}/write`, {
          method: 'POST',
          headers: { 'Content-Type': 'application/json' },
          body: JSON.stringify(body),
        }).then(
          ({ status }) => status,
          () => 0,
        ),
      { timeout: 60_000 },
    )
    .toBe(200)
  await fleet('clear')
  const state = async () => (await estate.get<Mirrored>(`/volumes/${volumeId}`)).volume.mirror?.state
  await expect.poll(state, { timeout: 60_000 }).toBe('broken')
}

/** A volume on two systems: moved there and back, mirrored, and let go, with the process killed in every change. */
export async function elsewhere(estate: KilledEstate, victim: string, { poolId, hostGroupId }: Given): Promise<void> {
  const far = await partner(estate, victim)
  const name = `pair-${victim}`
  const asked = { name, purpose: '', size: '10 GiB', poolId, isThin: true, hostGroupId }
  const volumeId = (await estate.proven('provision-volume', asked)).facts['volumeId'] ?? ''
  const to = (place: string) => ({ volumeId, poolId: place, ratePercent: 80 })
  const former = [
    (await estate.proven('move-to-system', to(far.poolId))).facts['formerId'] ?? '',
    (await estate.proven('move-to-system', to(poolId))).facts['formerId'] ?? '',
  ]
  await estate.proven('mirror-volume', to(far.poolId))
  await broken(estate, volumeId)
  await estate.proven('refill-mirror', { volumeId, ratePercent: 80 })
  former.push((await estate.proven('end-mirror', { volumeId })).facts['farId'] ?? '')
  const limit = { volumeIds: [volumeId], mostRequests: 900, mostThroughput: '' }
  await estate.proven('limit-volumes', limit)
  const { items: hosts } = await estate.get<Items>('/hosts?filter=register-1&limit=10')
  const { items: sites } = await estate.get<Items>('/sites')
  for (const siteId of [sites.find(each => each.name === 'Kiln Hill')?.id ?? '', ''])
    await estate.carried('place-hosts', { hostIds: [hosts[0]?.id ?? ''], siteId })
  await estate.carried('remove-volume', { volumeId, confirmedName: name })
  for (const id of [...former, volumeId]) {
    const { volume } = await estate.get<{ volume: { name: string } }>(`/volumes/${id}`)
    await estate.carried('delete-held-volume', { volumeId: id, confirmedName: volume.name })
  }
  await estate.proven('remove-pool', far)
  await estate.proven('forget-system', { systemId: far.systemId })
}
