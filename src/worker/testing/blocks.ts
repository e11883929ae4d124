import { one, within } from '@/core/estate'
import { prepared, type Left } from './prepared'
import { workbench } from './workbench'

const drivesOfPool = 8
const sharePercent = 10

const rate = 36_000

/** Makes what tests of blocks stand on. */
async function make(): Promise<Left> {
  const bench = await workbench(rate)
  const systemId = await bench.registered('heron')
  const { drives } = await bench.estate(within(systemId))
  const ids: Record<string, string> = { heron: systemId }
  for (const [index, name] of (['pool', 'other'] as const).entries()) {
    const pool = await bench.carriedOut('create-pool', {
      systemId,
      name: `heron-fast-0${index + 1}`,
      driveIds: drives.slice(index * drivesOfPool, (index + 1) * drivesOfPool).map(each => each.id),
      scheme: { kind: 'parity', parityDrives: 2 },
      maxGroupDrives: 12,
      spareCount: 0,
      snapshotSharePercent: sharePercent,
    })
    ids[name] = factOf(pool, 'poolId')
  }
  await withHosts(bench, ids)
  const made = await bench.carriedOut('provision-volume', {
    name: 'register-data-01',
    purpose: 'data',
    size: '64 MiB',
    poolId: ids['pool'],
    isThin: true,
    hostGroupId: ids['accession-register'],
  })
  ids['volume'] = factOf(made, 'volumeId')
  return bench.left(ids)
}

/** A workbench with an array of two pools, hosts in groups of their own, and one volume that the register sees. */
export async function blocks(wanted: { readonly pace?: number } = {}) {
  const from = await prepared('blocks', make)
  const bench = await workbench(rate, { ...wanted, from })
  const ids: Ids = { ...from.ids }
  const array = bench.fleet.arrays.find(each => each.model.name === 'heron')
  if (array === undefined) throw new Error('The fleet has no heron.')
  return {
    ...bench,
    ...asking(bench),
    ids,
    array,
    volume: async (id = ids['volume']) =>
      (await bench.estate([one('volumes', id)])).volumes.find(each => each.id === id),
  }
}

type Bench = Awaited<ReturnType<typeof workbench>>
type Ids = Partial<Record<string, string>>

/** Hosts in groups of their own. */
async function withHosts(bench: Bench, ids: Record<string, string>): Promise<void> {
  for (const [host, groupName] of [
    ['register-1', 'accession-register'],
    ['register-2', 'catalogue'],
    ['keep-1', 'backup'],
  ] as const) {
    const agentAddress = `http://127.0.0.1:${bench.fleet.ports.hosts[host]}`
    await bench.carriedOut('register-host', { agentAddress, groupName })
  }
  const { hosts, hostGroups } = await bench.estate()
  for (const { id, name } of [...hosts, ...hostGroups]) ids[name] = id
}

/** What tests ask of changes and of hosts. */
function asking(bench: Bench) {
  return {
    /** Carries out and expects it to be proven. */
    done: async (kind: string, intent: object) => {
      const change = await bench.carriedOut(kind, intent)
      expect([kind, change.state, change.refusal?.why]).toEqual([kind, 'proven', undefined])
      return change
    },
    /** The rules that bar a draft. */
    refused: async (kind: string, intent: object) =>
      (await bench.drafted(kind, intent)).plan.checks
        .filter(check => !check.holds && check.level === 'must')
        .map(check => check.rule),
    /** What a host's agent answers. */
    agent: async (host: string, path: string, body: object) => {
      const answer = await fetch(`http://127.0.0.1:${bench.fleet.ports.hosts[host]}/agent${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      })
      const said = (await answer.json()) as {
        readonly sha256?: string
        readonly why?: string
        readonly sizeBytes?: string
      }
      return { status: answer.status, ...said }
    },
  }
}

export const factOf = ({ facts }: { readonly facts: Readonly<Record<string, unknown>> }, name: string): string =>
  String(facts[name] as string | undefined)
