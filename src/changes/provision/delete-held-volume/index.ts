import { deleteHeldVolumeIntent, type DeleteHeldVolumeIntent as Intent } from '@/core/intents'
import { type Estate, one } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'

type Step = Readonly<{ step: 'delete'; systemId: string; volumeLocator: string; naa: string }>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const isOver = volume?.holdingUntil != null && Date.parse(volume.holdingUntil) <= now.getTime()
  const claims = volume === undefined ? [] : [volume.id]
  return outlined<Step>(estate, {
    title: `Delete ${volume?.name ?? 'a volume'} after its holding`,
    checks: [
      rule(
        'holding-over',
        isOver,
        'Its time in holding is over.',
        'Its time in holding is not over: it can still be brought back.',
      ),
      ...(system === undefined ? [] : [answers(system)]),
    ],
    effects:
      pool === undefined
        ? []
        : [
            {
              figure: 'writtenBytes',
              label: `Written in ${pool.name}`,
              unit: 'bytes',
              before: `${pool.writtenBytes}`,
              after: `${pool.writtenBytes - (volume?.writtenBytes ?? 0n)}`,
            },
          ],
    oneWay: ['Nothing brings it back after this.'],
    undo: { possible: false, how: 'It cannot be undone.' },
    steps: [
      {
        words: 'Delete it from its pool',
        seconds: 0.5,
        step: {
          step: 'delete',
          systemId: system?.id ?? '',
          volumeLocator: volume?.locator ?? '',
          naa: volume?.naa ?? '',
        },
      },
    ],
    reads: look.reads,
    claims,
    proof: 'The system is asked for the volume again: it must be gone.',
  })
}

/** Drafted by the worker alone, when a holding has ended. */
export const deleteHeldVolume: ChangeKind<Intent, Step> = {
  ...deleteHeldVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    await (await ports.of(step.systemId, 'volumes')).remove(step.volumeLocator, step.naa)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [step.volumeLocator])
    return { systemId: step.systemId, volumeLocator: step.volumeLocator }
  },
  undoStep: async () => 'The volume has been deleted.',
  async prove(_intent, made, facts, ports) {
    const stated = await (await ports.of(facts['systemId'] ?? '', 'volumes')).at(facts['volumeLocator'] ?? '')
    const naa = made.steps[0]?.step.naa ?? ''
    return [
      {
        claim: 'The volume is gone',
        // Another may stand at its place by now: it is known by its name.
        holds: naa !== '' && stated?.naa !== naa,
        measured: { deleted: naa, stated: stated?.naa ?? 'nothing' },
      },
    ]
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: () => undefined,
}
