import { one, type Estate } from '@/core/estate'
import { splitCloneIntent, type SplitCloneIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { begunOnce } from '../../parts/begunOnce'
import { answers, rule } from '../../parts/checks'
import { freeBytesOf } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'

type Step = Readonly<{ step: 'split'; systemId: string; volumeId: string; locator: string; snapshotLocator: string }>
const copyBytesPerSecond = 0.9e9

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const snapshot = look.one('snapshots', volume?.cloneOfId)
  const source = look.one('volumes', snapshot?.volumeId)
  // What it shares is at most what its source has written.
  const bytes = source?.writtenBytes ?? volume?.sizeBytes ?? 0n
  const free = pool === undefined ? 0n : freeBytesOf(pool)
  return { bytes, free, look, pool, snapshot, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { bytes, free, look, pool, snapshot, volume } = seen
  return outlined<Step>(estate, {
    title: `Split ${volume?.name ?? 'a clone'} from ${snapshot?.name ?? 'its snapshot'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'freeBytes',
        label: `Left to write in ${pool?.name ?? 'its pool'}`,
        unit: 'bytes',
        before: `${free}`,
        after: `${free - bytes}`,
      },
    ],
    oneWay: ['What it has shared is stored twice afterwards.'],
    undo: { possible: false, how: 'It cannot be undone: a volume does not become a clone again.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [volume?.id, pool?.id].filter(id => id !== undefined),
    proof: 'The system is asked whether it still shares with anything.',
  })
}

const checksOf = ({ bytes, free, pool, snapshot, system, volume }: Seen): readonly PlanCheck[] => [
  inUse(volume, volume => `${volume.name} is in use.`),
  ...(system === undefined ? [] : [answers(system)]),
  rule('is-clone', snapshot !== undefined, `It shares with ${snapshot?.name ?? ''}.`, 'It is a clone of nothing.'),
  rule(
    'fits',
    bytes <= free,
    `${formatBytes(free)} is left in ${pool?.name ?? 'its pool'}.`,
    `${formatBytes(bytes)} is copied, and ${formatBytes(free)} is left in ${pool?.name ?? 'its pool'}.`,
    { remedy: 'Make room first, or clone it to another pool.' },
  ),
]

const stepsOf = ({ bytes, snapshot, volume }: Seen): Outlined<Step>[] =>
  volume === undefined || snapshot === undefined
    ? []
    : [
        {
          words: 'Copy what it shares',
          seconds: 0.5,
          bytes,
          parts: [{ name: 'drives', bytesPerSecond: copyBytesPerSecond }],
          step: {
            step: 'split',
            systemId: volume.systemId,
            volumeId: volume.id,
            locator: volume.locator,
            snapshotLocator: snapshot.locator,
          },
        },
      ]

export const splitClone: ChangeKind<Intent, Step> = {
  ...splitCloneIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  needsAlso: (estate, { volumeId }) => {
    const snapshotId = estate.volumes.find(each => each.id === volumeId)?.cloneOfId
    return snapshotId == null ? undefined : [one('snapshots', snapshotId)]
  },
  plan,
  async runStep(step, { facts }, ports) {
    const snapshots = await ports.of(step.systemId, 'snapshots')
    const isDone = async () => !(await snapshots.isShared(step.locator))
    const known = { systemId: step.systemId, volumeId: step.volumeId }
    if (await isDone()) return known
    const task = await begunOnce(
      'splitAfter',
      facts,
      ports,
      () => snapshots.workOn(step.locator),
      () => snapshots.split(step.snapshotLocator, step.locator),
    )
    await waitForTask({ systemId: step.systemId, task, words: 'Copying', isDone }, ports)
    return known
  },
  undoStep: async () => 'What has been copied stays copied.',
  async prove(_intent, plan, _facts, ports) {
    const step = firstStep(plan)
    const isShared = await (await ports.of(step.systemId, 'snapshots')).isShared(step.locator)
    return [
      {
        claim: 'The system says that it shares with nothing',
        holds: !isShared,
        measured: { shares: isShared ? 'yes' : 'no' },
      },
    ]
  },
  collects: itsSystem,
  reverse: () => undefined,
}
