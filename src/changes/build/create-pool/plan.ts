import type { CreatePoolIntent as Intent } from '@/core/intents'
import { nameCheck, sequentialBytesPerSecond, suffixOf, type Drive, type Estate, type System } from '@/core/estate'
import { poolDurability, reliabilityByMedia } from '@/core/durability'
import {
  capacityLadder,
  leastGroupDrives,
  raidLayout,
  shareOf,
  type NoRaidLayout,
  type RaidLayout,
} from '@/core/layout'
import type { Plan, PlanCheck, Sketch, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { advise, answers, must, rule } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import type { Step } from './steps'

/** What systems keep of raw for their own accounts, until they state it: a usual share, told apart from what is measured afterwards. */
const expectedMetadataRatio = 0.0075
/** Of a drive's rate that hosts leave to initialising and rebuilding. */
const backgroundShare = 0.8
const rebuildShare = 0.5
/** To ask for the pool and hear that it has begun. */
const askSeconds = 1

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const known = new Map(estate.drives.map(drive => [drive.id, drive]))
  const chosen = intent.driveIds.flatMap(id => known.get(id) ?? [])
  look.at('drives', chosen)
  const layout = raidLayout(
    chosen.map(drive => drive.capacityBytes),
    intent.scheme,
    intent.maxGroupDrives,
    intent.spareCount,
  )
  const rate = Math.min(...chosen.map(sequentialBytesPerSecond))
  const largest = chosen.reduce((most, drive) => (drive.capacityBytes > most ? drive.capacityBytes : most), 0n)
  const claims = [...intent.driveIds, ...(system === undefined ? [] : [`pool:${system.id}/${intent.name}`])]
  const groups = layout.feasible
    ? layout.groups.map(group => group.driveIndexes.map(index => chosen[index]?.locator ?? ''))
    : []
  const spares = layout.feasible ? layout.spareIndexes.map(index => chosen[index]?.locator ?? '') : []
  const sketch = layout.feasible ? sketchOf(layout, intent, chosen, rate) : undefined
  const freeBytes = sketch?.of === 'pool' ? (sketch.ladder.at(-1)?.bytes ?? '0') : null
  return { chosen, claims, estate, freeBytes, groups, intent, largest, layout, look, rate, sketch, spares, system }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { chosen, claims, layout, look, sketch, system } = seen
  return outlined<Step>(estate, {
    title: `Create pool ${intent.name === '' ? '…' : intent.name}${system === undefined ? '' : ` on ${system.name}`}`,
    checks: checksOf(estate, intent, system, chosen, layout),
    effects: effectsOf(seen),
    oneWay: [
      "Layout and group size can't be changed later.",
      'Initialising overwrites everything on the chosen drives.',
    ],
    undo: { possible: true, how: 'The pool can be removed as long as it holds no volumes; its drives are free again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof:
      'The system is asked for the pool again: it must be ready, hold exactly the chosen drives, and have the usable space that was planned.',
    ...(sketch === undefined ? {} : { sketch }),
    suggestions: { name: suggestedName(estate, system, chosen) },
  })
}

function effectsOf({ chosen, estate, freeBytes }: Seen): readonly Effect[] {
  return [
    { figure: 'freeBytes', label: 'Free to provision', unit: 'bytes', before: null, after: freeBytes },
    {
      figure: 'rawBytes',
      label: 'Raw, of the chosen drives',
      unit: 'bytes',
      before: null,
      after: `${chosen.reduce((sum, drive) => sum + drive.capacityBytes, 0n)}`,
    },
    {
      figure: 'unassigned',
      label: 'Drives left unassigned',
      unit: 'count',
      before: countUnassigned(estate.drives),
      after: countUnassigned(estate.drives) - chosen.length,
    },
  ]
}

function stepsOf({ chosen, groups, intent, largest, rate, spares }: Seen): Outlined<Step>[] {
  return [
    {
      words: `Create it with ${groups.length} RAID group${groups.length === 1 ? '' : 's'}`,
      seconds: askSeconds,
      step: {
        step: 'create',
        systemId: intent.systemId,
        name: intent.name,
        scheme: intent.scheme,
        groups,
        spares,
        snapshotSharePercent: intent.snapshotSharePercent,
      },
    },
    {
      words: 'Initialise its drives',
      seconds: 2,
      bytes: largest,
      parts: chosen.length === 0 ? [] : [{ name: 'drives', bytesPerSecond: rate * backgroundShare }],
      step: { step: 'initialise', systemId: intent.systemId },
    },
  ]
}

const countUnassigned = (drives: readonly Drive[]) =>
  drives.filter(drive => drive.role === 'unassigned' && drive.state === 'fine').length

function suggestedName(estate: Estate, system: System | undefined, chosen: readonly Drive[]): string {
  if (system === undefined) return ''
  const kind = chosen.some(drive => drive.media === 'HDD') ? 'bulk' : 'fast'
  const taken = new Set(estate.pools.map(pool => pool.name))
  for (let number = 1; ; number += 1) {
    const name = `${system.name}-${kind}-${String(number).padStart(2, '0')}`
    if (!taken.has(name)) return name
  }
}

function checksOf(
  estate: Estate,
  intent: Intent,
  system: System | undefined,
  chosen: readonly Drive[],
  layout: RaidLayout | NoRaidLayout,
): PlanCheck[] {
  const nameTaken = estate.pools.some(pool => pool.systemId === intent.systemId && pool.name === intent.name)
  return [
    ...(system === undefined
      ? [must('system', false, 'Choose the system on which to build.', { field: 'systemId' })]
      : [answers(system)]),
    nameCheck(intent.name, 'the pool'),
    rule('name-free', !nameTaken, 'The name is free.', `${system?.name ?? 'The system'} has a pool of that name.`, {
      field: 'name',
    }),
    ...driveChecks(intent, chosen),
    layoutCheck(intent, chosen.length, layout),
    ...(layout.feasible ? [strandedCheck(layout)] : []),
    advise(
      'spares',
      intent.spareCount > 0,
      `${intent.spareCount} spare${intent.spareCount === 1 ? '' : 's'}: a lost drive is rebuilt at once.`,
      'No spare: after losing a drive the pool waits for somebody to bring one.',
      { field: 'spareCount' },
    ),
  ]
}

function driveChecks(intent: Intent, chosen: readonly Drive[]): PlanCheck[] {
  const foreign = chosen.filter(drive => drive.systemId !== intent.systemId)
  const taken = chosen.filter(drive => drive.role !== 'unassigned')
  const hurt = chosen.filter(drive => drive.state !== 'fine')
  const media = new Set(chosen.map(drive => drive.media))
  const suffixes = (drives: readonly Drive[]) => drives.map(drive => suffixOf(drive.serial)).join(', ')
  return [
    rule(
      'drives-known',
      chosen.length === intent.driveIds.length && foreign.length === 0,
      'All chosen drives are there.',
      'Some chosen drives are gone from the system.',
      { field: 'driveIds', remedy: 'Choose again from the bays.' },
    ),
    rule('drives-free', taken.length === 0, 'No chosen drive is in use.', `In use meanwhile: ${suffixes(taken)}.`, {
      field: 'driveIds',
      remedy: 'Take them out of the choice.',
    }),
    rule('drives-fine', hurt.length === 0, 'All chosen drives are healthy.', `Not healthy: ${suffixes(hurt)}.`, {
      field: 'driveIds',
      remedy: 'Take them out of the choice.',
    }),
    rule(
      'one-media',
      media.size <= 1,
      'All are of one media.',
      'HDD and SSD in one pool: it would be as slow as the disks and as small as the SSDs.',
      { field: 'driveIds', remedy: 'Make a pool of each.' },
    ),
  ]
}

function layoutCheck(intent: Intent, driveCount: number, layout: RaidLayout | NoRaidLayout): PlanCheck {
  const least = leastGroupDrives(intent.scheme)
  if (layout.feasible)
    return must(
      'layout',
      true,
      `${layout.groupCount} group${layout.groupCount === 1 ? '' : 's'} of ${[...new Set(layout.groupSizes)].join(' and ')} drives.`,
      { field: 'maxGroupDrives' },
    )
  const words: Readonly<Record<NoRaidLayout['reason'], readonly [string, string]>> = {
    'no-drives': [
      driveCount === 0 ? 'No drives are chosen yet.' : `All ${driveCount} chosen drives would be spares.`,
      `Choose at least ${least + intent.spareCount} drives.`,
    ],
    'not-a-multiple-of-copies': [
      `${driveCount - intent.spareCount} drives cannot be cut into whole mirror sets of ${intent.scheme.kind === 'mirror' ? intent.scheme.copies : 1}.`,
      'Add or take away drives, or change the number of spares.',
    ],
    'group-too-small': [
      `A group of this layout needs at least ${least} drives.`,
      `Choose more drives, or allow larger groups; least is ${least} and ${intent.spareCount} spares.`,
    ],
  }
  const [why, remedy] = words[layout.reason]
  return must('layout', false, why, {
    field: layout.reason === 'group-too-small' && intent.maxGroupDrives < least ? 'maxGroupDrives' : 'driveIds',
    remedy,
  })
}

const strandedCheck = (layout: RaidLayout) =>
  advise(
    'nothing-stranded',
    layout.strandedBytes === 0n,
    'All drives of a group are of one size; nothing is stranded.',
    `${formatBytes(layout.strandedBytes)} of larger drives can't be used beside smaller ones.`,
    { field: 'driveIds', remedy: 'Make groups of equal drives.' },
  )

function sketchOf(layout: RaidLayout, intent: Intent, chosen: readonly Drive[], rate: number): Sketch {
  const metadataBytes = shareOf(layout.rawBytes, expectedMetadataRatio)
  const ladder = capacityLadder({
    rawBytes: layout.rawBytes,
    spareBytes: layout.spareBytes,
    redundancyBytes: layout.redundancyBytes,
    strandedBytes: layout.strandedBytes,
    metadataBytes,
    snapshotReserveBytes: shareOf(layout.usableBytes - metadataBytes, intent.snapshotSharePercent / 100),
    writtenBytes: 0n,
  })
  return {
    of: 'pool',
    ladder: ladder.map(rung => ({
      name: rung.name,
      bytes: `${rung.bytes}`,
      takenBytes: `${rung.takenBytes}`,
      sum: rung.sum.map(item => ({ name: item.name, bytes: `${item.bytes}` })),
    })),
    groups: layout.groups.map(group => ({
      driveIds: group.driveIndexes.map(index => chosen[index]?.id ?? ''),
      words: groupWords(group.driveIndexes.length, intent),
    })),
    spareDriveIds: layout.spareIndexes.map(index => chosen[index]?.id ?? ''),
    durability: durabilityOf(layout, intent, chosen, rate),
  }
}

function durabilityOf(layout: RaidLayout, intent: Intent, chosen: readonly Drive[], rate: number) {
  const media = chosen.some(drive => drive.media === 'HDD') ? 'HDD' : 'SSD'
  const smallest = layout.groups.reduce((most, group) => (group.smallestBytes > most ? group.smallestBytes : most), 0n)
  const durability = poolDurability(
    layout.groupSizes,
    intent.scheme,
    smallest,
    rate * rebuildShare,
    reliabilityByMedia[media],
  )
  return {
    survives: durability.survivedLosses,
    oneYear: durability.oneYear,
    fiveYears: durability.fiveYears,
    rebuildHours: durability.rebuildHours,
    basis: `${(reliabilityByMedia[media].annualFailureRate * 100).toFixed(1)}% of ${media} drives fail in a year; independent failures; rebuilt at half a drive's rate`,
  }
}

const groupWords = (drives: number, { scheme }: Intent) =>
  scheme.kind === 'parity'
    ? `${drives - scheme.parityDrives} data + ${scheme.parityDrives} parity`
    : `${drives / scheme.copies} × ${scheme.copies} copies`
