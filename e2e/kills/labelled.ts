import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { ownEstate } from '../estate'
import type { KilledEstate } from './KilledEstate'

interface Items {
  readonly items: readonly { readonly id: string; readonly name: string }[]
}
const blankRule = {
  ...{ ruleId: '', subject: 'fill', gravity: 'soon', beginsAt: 99, endsAt: 98, minutes: 0, quietFrom: null },
  ...{ quietTo: null, quietDays: '', timeZone: 'UTC', isUrgentAlways: false, roundAt: null },
}

/** Whom volumes serve, images and their clones, hosts from a list, and who is told: with the process killed in every change. */
export async function labelled(estate: KilledEstate, victim: string, poolId: string): Promise<void> {
  for (const application of [`label ${victim}`, '']) await estate.proven('keep-pool', { poolId, application })
  const asked = { name: `label-${victim}`, purpose: '', size: '10 GiB', poolId, isThin: true, hostGroupId: '' }
  const made = await estate.proven('provision-volume', { ...asked, application: `label ${victim}` })
  const volumeId = made.facts['volumeId'] ?? ''
  await estate.proven('set-application', { volumeIds: [volumeId], application: `other ${victim}` })
  await estate.proven('keep-as-image', { volumeId })
  const names = [1, 2, 3, 4].map(number => `seat-${victim}-${number}`)
  await estate.proven('clone-volumes', { volumeId, snapshotId: '', names: `seat-${victim}-{1..4}`, hostGroupId: '' })
  await estate.proven('release-image', { volumeId })
  const { items } = await estate.get<Items>(`/volumes?filter=seat-${victim}&limit=10`)
  for (const name of names) {
    const id = items.find(each => each.name === name)?.id ?? ''
    await estate.carried('remove-volume', { volumeId: id, confirmedName: name })
    await estate.carried('delete-held-volume', { volumeId: id, confirmedName: name })
  }
  await estate.carried('remove-volume', { volumeId, confirmedName: `label-${victim}` })
  const lines = Array.from(
    { length: 700 },
    (_, at) => `h-${victim}-${at},racks-${victim},iqn.2026-01.example:${victim}.${at}`,
  )
  await estate.proven('register-hosts', { list: lines.join('\n') })
  const { items: hosts } = await estate.get<Items>(`/hosts?filter=h-${victim}-699&limit=10`)
  await estate.proven('forget-host', { hostId: hosts.find(each => each.name === `h-${victim}-699`)?.id ?? '' })
  const file = join(ownEstate().data, 'fleet-ports.json')
  const { desk } = JSON.parse(readFileSync(file, 'utf8')) as { desk: { http: number } }
  const route = { routeId: '', name: `desk ${victim}`, way: 'webhook', address: `http://127.0.0.1:${desk.http}/told` }
  const { facts } = await estate.proven('define-route', {
    ...route,
    sender: '',
    recipients: '',
    userName: '',
    secretId: '',
  })
  const routeId = facts['routeId'] ?? ''
  await estate.proven('test-route', { routeId })
  const rule = await estate.proven('define-rule', { ...blankRule, name: `rule ${victim}`, routeIds: [routeId] })
  await estate.proven('remove-rule', { ruleId: rule.facts['ruleId'] ?? '' })
  await estate.proven('remove-route', { routeId })
}
