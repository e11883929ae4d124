import type { CreatePoolIntent as Intent } from '@/core/intents'
import { nameCheck, suffixOf, type Drive, type Estate, type System } from '@/core/estate'
import { leastGroupDrives, type NoRaidLayout, type RaidLayout } from '@/core/layout'
import type { PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { advise, answers, must, rule } from '../../parts/checks'

export function checksOf(
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
