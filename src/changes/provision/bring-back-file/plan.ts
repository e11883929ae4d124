import { byId, type Estate, type Snapshot } from '@/core/estate'
import type { BringBackFileIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { answers, rule } from '../../parts/checks'
import { usable } from '../../parts/copies'
import { isPlainPath, pathWords } from '../../parts/hostPaths'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { initiatorsOf, seeingHost } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import type { Step } from './steps'

/** Where nobody says which snapshot, so many are looked through, the latest first. */
const mostLookedThrough = 24

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const host = byId(estate.hosts, intent.hostId)
  const group = look.one('hostGroups', host?.hostGroupId)
  const isSeen = estate.mappings.some(each => each.volumeId === volume?.id && each.hostGroupId === group?.id)
  const chosen = intent.snapshotId === '' ? undefined : look.one('snapshots', intent.snapshotId)
  const own = estate.snapshots.filter(each => each.volumeId === volume?.id && each.state === 'consistent')
  const from =
    intent.snapshotId === '' ? latestFirst(own).slice(0, mostLookedThrough) : chosen === undefined ? [] : [chosen]
  const to = intent.to === '' ? intent.path : intent.to
  return { chosen, estate, from, group, host, intent, isSeen, look, system, to, volume }
}
type Seen = ReturnType<typeof see>

const latestFirst = (snapshots: readonly Snapshot[]) =>
  snapshots.toSorted((a, b) => (b.takenAt ?? '').localeCompare(a.takenAt ?? ''))

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { chosen, from, host, look, to, volume } = seen
  return outlined<Step>(estate, {
    title: `Bring back ${intent.path || 'a file'} on ${host?.name ?? 'a host'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'file',
        label: to === '' ? 'The file' : to,
        unit: 'words',
        before: null,
        after: chosen === undefined ? `as in the latest of ${from.length} that holds it` : `as in ${chosen.name}`,
      },
    ],
    undo: { possible: true, how: 'What was brought back is removed again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [volume?.id, host?.id].filter(id => id !== undefined),
    proof: 'The host reads the file in the snapshot and where it was brought to, and compares them.',
  })
}

function checksOf({ chosen, from, host, intent, isSeen, system, to, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    ...(intent.snapshotId === '' ? [] : [usable(chosen, volume)]),
    ...(intent.snapshotId === ''
      ? [
          rule(
            'snapshots',
            from.length > 0,
            'It has snapshots to look through.',
            'It has no snapshot that is consistent.',
          ),
        ]
      : []),
    seeingHost(host, isSeen),
    rule('path', isPlainPath(intent.path), `${intent.path} is looked for.`, pathWords, { field: 'path' }),
    ...(intent.to === '' ? [] : [rule('to', isPlainPath(to), `It is brought to ${to}.`, pathWords, { field: 'to' })]),
  ]
}

function stepsOf({ estate, from, group, host, intent, to, volume }: Seen): Outlined<Step>[] {
  if (volume === undefined || host?.agentAddress == null || group === undefined) return []
  return [
    {
      words: `${host.name} copies it from the snapshot`,
      seconds: 2 + from.length * 0.2,
      step: {
        step: 'copy',
        systemId: volume.systemId,
        naa: volume.naa,
        hostName: host.name,
        agentAddress: host.agentAddress,
        groupName: group.name,
        initiators: initiatorsOf(estate, group),
        snapshots: from.map(each => ({ id: each.id, name: each.name, locator: each.locator, naa: each.naa })),
        path: intent.path,
        to,
      },
    },
  ]
}
