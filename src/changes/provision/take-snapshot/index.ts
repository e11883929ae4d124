import { nameCheck, one, those, type Estate } from '@/core/estate'
import { takeSnapshotIntent, type TakeSnapshotIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { spaceOf } from '@/core/snapshots'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { advise, answers } from '../../parts/checks'
import { momentName, nameFree, take, takeStep, untake, type TakeStep as Step } from '../../parts/copies'
import { freeBytesOf } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { fact, firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const pool = look.one('pools', volume?.poolId)
  const before = estate.snapshots.filter(each => each.volumeId === volume?.id)
  return { before, estate, intent, look, pool, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent, now: Date): Plan<Step> {
  const seen = see(estate, intent)
  const { look, pool, volume } = seen
  return outlined<Step>(estate, {
    title: `Snapshot of ${volume?.name ?? 'a volume'}${intent.reason === '' ? '' : `: ${intent.reason}`}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    undo: { possible: true, how: 'It can be removed again.' },
    steps: volume === undefined || pool === undefined ? [] : [takeStep(volume, pool, intent.name, intent.reason)],
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id],
    proof:
      'The system is asked for it again: it must be consistent, of the size of its volume, and name the moment that it holds.',
    suggestions: { name: momentName(estate, volume, now) },
  })
}

const checksOf = ({ estate, intent, pool, system, volume }: Seen): readonly PlanCheck[] => [
  inUse(volume, volume => `${volume.name} is in use.`),
  ...(system === undefined ? [] : [answers(system)]),
  nameCheck(intent.name, 'the snapshot'),
  nameFree(estate, intent.name),
  ...(pool === undefined
    ? []
    : [
        advise(
          'room',
          pool.snapshotBytes < pool.snapshotReserveBytes || freeBytesOf(pool) > 0n,
          `${pool.name} has room for what will be overwritten.`,
          `${pool.name} has no room left: what hosts overwrite has to be kept beside, and writes will fail.`,
          { remedy: 'Remove snapshots, or add drives.' },
        ),
      ]),
]

function effectsOf({ before }: Seen): readonly Effect[] {
  const bytes = `${spaceOf(before).totalBytes}`
  return [
    { figure: 'snapshots', label: 'Snapshots of it', unit: 'count', before: before.length, after: before.length + 1 },
    { figure: 'snapshotBytes', label: 'Space that they hold now', unit: 'bytes', before: bytes, after: bytes },
    {
      figure: 'moment',
      label: 'What it will hold',
      unit: 'words',
      before: null,
      after: 'all that was acknowledged when it is asked for',
    },
  ]
}

export const takeSnapshot: ChangeKind<Intent, Step> = {
  ...takeSnapshotIntent,
  needs: ({ volumeId, name }) => [
    one('volumes', volumeId),
    those('volumes', 'name', name),
    those('snapshots', 'volumeId', volumeId),
    those('snapshots', 'name', name),
  ],
  plan,
  runStep: (step, _context, ports) => take(step, ports),
  undoStep: (step, _context, ports) => untake(step, ports),
  async prove(_intent, plan, facts, ports): Promise<Evidence[]> {
    const step = firstStep(plan)
    const seen = await (await ports.of(step.systemId, 'snapshots')).at(fact(facts, 'snapshotLocator'))
    const source = await (await ports.of(step.systemId, 'volumes')).at(step.volumeLocator)
    return [
      {
        claim: 'The system states a consistent snapshot of the name, as large as its volume',
        holds:
          seen !== undefined && seen.isConsistent && seen.name === step.name && seen.sizeBytes === source?.sizeBytes,
        measured: {
          name: seen?.name ?? 'nothing',
          wwn: seen?.naa ?? 'nothing',
          consistent: seen?.isConsistent === true ? 'yes' : 'no',
          bytes: `${seen?.sizeBytes ?? 'nothing'}`,
          volumeBytes: `${source?.sizeBytes ?? 'nothing'}`,
        },
      },
      {
        claim: 'It holds a moment that the system itself names',
        holds: seen?.takenAt !== null && seen !== undefined,
        measured: { moment: seen?.takenAt ?? 'not stated' },
      },
    ]
  },
  collects: itsSystem,
  reverse: ({ volumeId }, facts) =>
    facts['snapshotId'] === undefined
      ? undefined
      : { kind: 'remove-snapshots', intent: { volumeId, snapshotIds: [facts['snapshotId']], reason: '' } },
}
