import type { CreatePoolIntent as Intent } from '@/core/intents'
import { sequentialBytesPerSecond, type Drive, type Estate, type System } from '@/core/estate'
import { raidLayout } from '@/core/layout'
import type { Plan, Effect } from '@/core/plan'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import type { Step } from './steps'
import { checksOf } from './checks'
import { sketchOf } from './sketch'

/** Of a drive's rate that hosts leave to initialising and rebuilding. */
const backgroundShare = 0.8

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
  const at = (indexes: readonly number[]) => indexes.flatMap(index => chosen[index]?.locator ?? [])
  const groups = layout.feasible ? layout.groups.map(group => at(group.driveIndexes)) : []
  const spares = layout.feasible ? at(layout.spareIndexes) : []
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
