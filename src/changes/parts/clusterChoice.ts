import { group } from 'd3-array'
import { layBanks, suggestedRole, type Bank, type DriveRole, type LaidBanks, type SuggestedRole } from '@/core/clusters'
import { byId, intakeState, suffixOf, type Drive, type Estate, type Node } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import type { BankWanted } from '@/ports'
import { must, rule } from './checks'

export interface ClusterChoice {
  readonly drives: readonly Drive[]
  readonly nodes: readonly Node[]
  readonly roleOf: ReadonlyMap<string, DriveRole>
  readonly banks: readonly Bank[]
  readonly unplaced: LaidBanks['unplaced']
  readonly cache: readonly Drive[]
  readonly capacity: readonly Drive[]
}

/** Drives by the node in which they stand; those that stand in none are left out. */
export function byNode(drives: readonly Drive[]): ReadonlyMap<string, readonly Drive[]> {
  const found = new Map<string, Drive[]>()
  for (const drive of drives) {
    if (drive.nodeId === null) continue
    const own = found.get(drive.nodeId)
    if (own === undefined) found.set(drive.nodeId, [drive])
    else own.push(drive)
  }
  return found
}

/** By the estate that they were asked of: a plan asks twice. */
const suggestedBefore = new WeakMap<Estate, Map<string, ReadonlyMap<string, SuggestedRole>>>()

/** The role that is suggested for every drive of these nodes that could be chosen. */
function suggestedRoles(estate: Estate, systemId: string): ReadonlyMap<string, SuggestedRole> {
  const before = suggestedBefore.get(estate) ?? new Map<string, ReadonlyMap<string, SuggestedRole>>()
  suggestedBefore.set(estate, before)
  const known = before.get(systemId)
  if (known !== undefined) return known
  const nodes = byNode(estate.drives.filter(drive => drive.systemId === systemId && !drive.isBoot))
  const found = new Map(
    [...nodes.values()].flatMap(own => own.map(drive => [drive.id, suggestedRole(drive, own)] as const)),
  )
  before.set(systemId, found)
  return found
}

/** What has been chosen, put into banks node by node. @param firstNumbers where numbering goes on in nodes that have banks already */
export function clusterChoice(
  estate: Estate,
  systemId: string,
  driveIds: readonly string[],
  roles: Readonly<Record<string, DriveRole>>,
  firstNumbers: ReadonlyMap<string, number> = new Map(),
): ClusterChoice {
  const known = new Map(estate.drives.map(drive => [drive.id, drive]))
  const drives = [...new Set(driveIds)].flatMap(id => known.get(id) ?? [])
  const suggested = suggestedRoles(estate, systemId)
  const roleOf = new Map(
    drives.map(drive => [drive.id, roles[drive.id] ?? suggested.get(drive.id)?.role ?? 'capacity']),
  )
  const drivesOf = byNode(drives)
  const nodes = estate.nodes.filter(node => drivesOf.has(node.id))
  const laid = nodes.map(node =>
    layBanks(
      node,
      (drivesOf.get(node.id) ?? []).map(drive => ({ ...drive, role: roleOf.get(drive.id) ?? 'capacity' })),
      firstNumbers.get(node.id) ?? 1,
    ),
  )
  const banks = laid.flatMap(each => each.banks)
  return {
    drives,
    nodes,
    roleOf,
    banks,
    unplaced: laid.flatMap(each => each.unplaced),
    cache: banks.flatMap(bank => known.get(bank.cacheDriveId) ?? []),
    capacity: banks.flatMap(bank => bank.capacityDriveIds.flatMap(id => known.get(id) ?? [])),
  }
}

const suffixes = (drives: readonly Drive[]) => drives.map(drive => suffixOf(drive.serial)).join(', ')

/** That the chosen drives are there, free, clean, and none is one that a node starts from. */
export function cleanDriveChecks(choice: ClusterChoice, wanted: number): PlanCheck[] {
  const byState = group(choice.drives, intakeState)
  const of = (state: ReturnType<typeof intakeState>) => byState.get(state) ?? []
  const [boot, foreign, failed, failing] = [of('boot'), of('foreign'), of('failed'), of('failing')]
  const taken = [...of('in use'), ...of('spare')]
  const hurt = [...failed, ...failing]
  const [firstForeign] = foreign
  return [
    must(
      'drives',
      choice.drives.length > 0,
      choice.drives.length === 0 ? 'No drives are chosen yet.' : `${choice.drives.length} drives are chosen.`,
      { field: 'driveIds', remedy: 'Choose drives in the bays, or by kind.' },
    ),
    rule(
      'drives-known',
      choice.drives.length === wanted,
      'All chosen drives are there.',
      'Some chosen drives are gone.',
      { field: 'driveIds', remedy: 'Choose again.' },
    ),
    rule(
      'no-boot',
      boot.length === 0,
      'No chosen drive is one that a node starts from.',
      `Nodes start from ${suffixes(boot)}.`,
      { field: 'driveIds', remedy: 'Take them out of the choice.' },
    ),
    rule('drives-free', taken.length === 0, 'No chosen drive is in use.', `In use: ${suffixes(taken)}.`, {
      field: 'driveIds',
      remedy: 'Take them out of the choice.',
    }),
    rule('drives-fine', hurt.length === 0, 'All chosen drives are healthy.', `Not healthy: ${suffixes(hurt)}.`, {
      field: 'driveIds',
      remedy: 'Take them out of the choice.',
    }),
    cleanCheck(foreign, firstForeign),
  ]
}

/** That every chosen drive has a place in a bank. */
export function banksCheck(estate: Estate, choice: ClusterChoice): PlanCheck {
  const empty = choice.banks.filter(bank => bank.capacityDriveIds.length === 0)
  const [first] = choice.unplaced
  const holds = first === undefined && empty.length === 0 && choice.banks.length > 0
  return must(
    'banks',
    holds,
    first !== undefined
      ? `${choice.unplaced.length} chosen drives have no place: ${first.why}`
      : empty[0] !== undefined
        ? `Bank ${empty[0].number} of ${byId(estate.nodes, empty[0].nodeId)?.name ?? ''} has a cache drive and nothing behind it.`
        : choice.banks.length === 0
          ? 'No bank comes of this choice yet.'
          : `${choice.banks.length} banks, one cache drive each.`,
    { field: 'driveIds', remedy: 'A bank is one cache drive and the capacity drives behind it, in one node.' },
  )
}

/** That nothing of an earlier use is left on the drives. */
const cleanCheck = (foreign: readonly Drive[], firstForeign: Drive | undefined): PlanCheck =>
  rule(
    'drives-clean',
    foreign.length === 0,
    'Nothing is left over on them.',
    `Earlier use has left data on ${suffixes(foreign)}${firstForeign?.leftOver?.system == null ? '' : `, from ${firstForeign.leftOver.system}`}.`,
    {
      field: 'driveIds',
      remedy: 'Erase them, or take them out of the choice.',
      ...(firstForeign === undefined ? {} : { href: `/build/drives?draft=erase-drive&drive=${firstForeign.id}` }),
    },
  )

/** Banks as a system is asked for them, by where their nodes and drives stand in it. */
export function banksAt(
  estate: Estate,
  banks: readonly (Omit<Bank, 'nodeId'> & { readonly nodeId: string | null })[],
): readonly BankWanted[] {
  const nodeAt = new Map(estate.nodes.map(node => [node.id, node.locator]))
  const driveAt = new Map(estate.drives.map(drive => [drive.id, drive.locator]))
  return banks.flatMap(({ number, nodeId, cacheDriveId, capacityDriveIds }) => {
    const nodeLocator = nodeId === null ? undefined : nodeAt.get(nodeId)
    const cacheLocator = driveAt.get(cacheDriveId)
    if (nodeLocator === undefined || cacheLocator === undefined) return []
    return [
      { number, nodeLocator, cacheLocator, capacityLocators: capacityDriveIds.flatMap(id => driveAt.get(id) ?? []) },
    ]
  })
}
