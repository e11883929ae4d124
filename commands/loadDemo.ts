import type { Sequelize } from 'sequelize'
import { those } from '@/core/estate'
import type { ChangeRecord } from '@/core/views'
import { carryOut, makeDraft, wendrel } from '@/drafting'
import { lookAtSystem } from '@/looking'
import { loadEstate, setSetting } from '@/records'
import { changeById } from '@/records/changes'
import { addSite, hosts, systems } from '@/records/queries'
import type { FleetPorts } from '@/standins'
import { hostModels } from '@/standins/demo/models'
import { CommandRefused } from './CommandRefused'
import { demoClasses } from './demoClasses'

const patienceMilliseconds = 60_000

/**
 * Loads the museum's estate: sites, hosts, the name server, bittern, which has been in use for years, with what is promised of its volumes,
 * and the bare nodes of godwit.
 * heron and curlew are new and left to be registered.
 * All goes the way of any change, so that it is planned, carried out and proven; what is there already is not done again.
 */
export async function loadDemo(
  database: Sequelize,
  key: Buffer,
  ports: FleetPorts,
  say: (line: string) => void,
): Promise<void> {
  const scope = { database }
  // The fleet stands on loopback and keeps a time of its own: both are what a real estate must not allow by itself.
  await setSetting(scope, 'addresses', '127.0.0.0/8')
  await setSetting(scope, 'estate-clock', 'systems')
  const siteIds = new Map<string, string>()
  for (const name of ['Canal House', 'Kiln Hill', 'Saltings']) siteIds.set(name, await addSite(scope, name))
  const known = new Set((await hosts(scope)).map(host => host.agentAddress))
  for (const { name, group } of hostModels) {
    const agentAddress = `http://127.0.0.1:${ports.hosts[name]}`
    if (!known.has(agentAddress))
      await done(database, 'register-host', {
        agentAddress,
        groupName: group,
        siteId: siteIds.get('Canal House') ?? '',
      })
  }
  await setSetting(scope, 'name-server', `127.0.0.1:${ports.names}`)
  for (const [name, site] of [
    ['bittern', 'Canal House'],
    ['godwit', 'Kiln Hill'],
  ] as const) {
    if ((await systems(scope)).some(system => system.name === name)) continue
    say(`loading ${name}`)
    await register(database, key, { name, port: ports.arrays[name] ?? 0, siteId: siteIds.get(site) ?? '' })
    if (name === 'bittern') await Promise.all(demoClasses.map(each => promise(database, each)))
  }
}

/** Defines a class and puts volumes under it. */
async function promise(database: Sequelize, { intent, volumes: names }: (typeof demoClasses)[number]): Promise<void> {
  const { facts } = await done(database, 'define-class', intent)
  const { volumes } = await loadEstate({ database }, [those('volumes', 'name', ...names)], '')
  await done(database, 'set-volume-class', { volumeIds: volumes.map(({ id }) => id), classId: facts['classId'] })
}

interface ToRegister {
  readonly name: string
  readonly port: number
  readonly siteId: string
}

async function register(database: Sequelize, key: Buffer, { name, port, siteId }: ToRegister): Promise<void> {
  const asked = {
    address: `http://127.0.0.1:${port}`,
    userName: 'admin',
    password: `${name}-demo`,
    madeBy: wendrel.name,
    acceptedFingerprint: null,
    isPlainHttpAccepted: true,
  }
  const probe = await lookAtSystem({ database }, key, asked, AbortSignal.timeout(patienceMilliseconds))
  const intent = { probeId: probe.id, name, siteId, isPlainHttpAccepted: true, acceptedFingerprint: '' }
  await done(database, 'register-system', intent)
}

async function done(database: Sequelize, kind: string, intent: object): Promise<ChangeRecord> {
  const draft = await makeDraft({ database }, kind, intent, wendrel)
  await carryOut(database, draft.id, draft.planDigest, wendrel)
  const until = Date.now() + patienceMilliseconds
  while (Date.now() < until) {
    const change = await changeById({ database }, draft.id)
    if (change?.state === 'proven') return change
    if (change !== undefined && change.state !== 'running')
      throw new CommandRefused(
        `The demo estate was not loaded: "${change.title}" ${change.state}. ${change.refusal?.why ?? ''}`,
        './wendrel reset starts anew.',
      )
    await new Promise(resolve => setTimeout(resolve, 150))
  }
  throw new CommandRefused(
    'The demo estate was not loaded: a change did not come to its end.',
    "See the worker's log in the data folder.",
  )
}
