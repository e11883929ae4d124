import { byId, one, those, type Estate } from '@/core/estate'
import { keepSnapshotsIntent, type KeepSnapshotsIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { rule } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'keep'; systemId: string; volumeId: string; snapshots: Readonly<Record<string, string>> }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const chosen = look.some('snapshots', intent.snapshotIds)
  const going = chosen.filter(each => each.goesAt !== null)
  return outlined<Step>(estate, {
    title: `Bring back ${countWords(chosen.length, 'snapshot', 'snapshots')} of ${volume?.name ?? 'a volume'}`,
    checks: [
      rule(
        'in-holding',
        going.length > 0 && going.length === intent.snapshotIds.length,
        'All of them are in holding.',
        'Some of them are not in holding: they are gone, or have been brought back already.',
      ),
    ],
    effects: [{ figure: 'holding', label: 'In holding', unit: 'count', before: going.length, after: 0 }],
    undo: { possible: true, how: 'They can be removed again.' },
    steps:
      volume === undefined || going.length === 0
        ? []
        : [
            {
              words: 'Take them out of holding',
              seconds: 0.05,
              step: {
                step: 'keep',
                systemId: volume.systemId,
                volumeId: volume.id,
                snapshots: Object.fromEntries(going.map(({ id, goesAt }) => [id, goesAt ?? ''])),
              },
            },
          ],
    reads: look.reads,
    claims: chosen.map(({ id }) => id),
    proof: 'The system is asked for each by its WWN, and none is in holding.',
  })
}

export const keepSnapshots: ChangeKind<Intent, Step> = {
  ...keepSnapshotsIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId), those('snapshots', 'volumeId', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    await ports.records.noteSnapshots(Object.keys(step.snapshots), { goesAt: null })
    return { systemId: step.systemId, volumeId: step.volumeId }
  },
  async undoStep(step, _context, ports) {
    for (const [id, goesAt] of Object.entries(step.snapshots))
      await ports.records.noteSnapshots([id], { goesAt: new Date(goesAt) })
    return undefined
  },
  async prove(intent, plan, _facts, ports) {
    const { systemId } = firstStep(plan)
    const { snapshots } = await ports.estate()
    const system = await ports.of(systemId, 'snapshots')
    const kept = intent.snapshotIds.map(id => byId(snapshots, id))
    const stated = await Promise.all(kept.map(async each => (each === undefined ? undefined : system.at(each.locator))))
    return [
      {
        claim: 'The system states each, and none is in holding',
        holds: kept.every((each, index) => each?.goesAt === null && stated[index]?.naa === each.naa),
        measured: { stated: `${stated.filter(each => each !== undefined).length} of ${kept.length}` },
      },
    ]
  },
  collects: () => [],
  reverse: ({ volumeId, snapshotIds }) => ({ kind: 'remove-snapshots', intent: { volumeId, snapshotIds, reason: '' } }),
}
