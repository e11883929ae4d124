import { eraseDriveIntent, type EraseDriveIntent as Intent } from '@/core/intents'
import {
  intakeState,
  sequentialBytesPerSecond,
  suffixOf,
  type Estate,
  within,
  type Drive,
  type Node,
} from '@/core/estate'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { begunOnce } from '../../parts/begunOnce'
import { advise, answers, must, rule, there } from '../../parts/checks'
import { nodesAnswer } from '../../parts/nodes'
import { outlined, type Outlined } from '../../parts/outline'
import { lookInto } from '../../parts/look'
import { waitForTask } from '../../parts/waitForTask'

interface Step {
  readonly step: 'erase'
  readonly systemId: string
  readonly locator: string
  readonly isWhole: boolean
  readonly serial: string
  readonly agentAddress: string
  readonly capacityBytes: string
}
/** Tables, and the heads and tails of file systems. */
const quickBytes = 256n * 1024n * 1024n
const eraseShare = 0.9
const sampleBytes = 65_536

export const eraseDrive: ChangeKind<Intent, Step> = {
  ...eraseDriveIntent,
  needs: ({ systemId }) => within(systemId),
  plan,
  async runStep(step, { facts }, ports) {
    const drives = await ports.of(step.systemId, 'drives')
    // Once only: erasing twice would do no harm, but take twice as long, and wear the drive.
    const task = await begunOnce(
      'eraseBefore',
      facts,
      ports,
      () => drives.erasing(step.locator),
      () => drives.erase(step.locator, step.serial, step.isWhole),
    )
    // Nothing but the task says that every sector was reached: one that has vanished is not taken for done.
    const isDone = () => Promise.resolve(false)
    await waitForTask({ systemId: step.systemId, task, words: 'Erasing', isDone }, ports)
    return {}
  },
  undoStep: () => Promise.resolve('What has been erased stays erased.'),
  prove,
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const drive = look.one('drives', intent.driveId)
  const node = look.one('nodes', drive?.nodeId)
  const suffix = suffixOf(drive?.serial ?? '')
  const state = drive === undefined ? undefined : intakeState(drive)
  const isTyped = intent.lastFour.trim().toUpperCase() === suffix && suffix !== ''
  const bytes = intent.isWhole ? (drive?.capacityBytes ?? 0n) : quickBytes
  const left = drive?.leftOver
  return { bytes, drive, intent, isTyped, left, look, node, state, suffix, system }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { drive, look, node, suffix } = seen

  return outlined<Step>(estate, {
    title: `Erase drive ${suffix === '' ? '…' : suffix}${node === undefined ? '' : ` in ${node.name}, bay ${drive?.bay ?? ''}`}`,
    checks: checksOf(seen),
    oneWay: [
      intent.isWhole
        ? 'Every sector is overwritten: nothing can be brought back.'
        : 'Tables and heads of file systems are overwritten; sectors between them keep their bytes until they are used.',
    ],
    undo: { possible: false, how: 'Erasing cannot be undone, and nothing is kept.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: drive === undefined ? [] : [drive.id],
    proof:
      'Through its node, sectors at both ends, in the middle and where partitions began are read: all must be zero.',
  })
}

function checksOf({ drive, isTyped, left, node, state, system }: Seen): readonly PlanCheck[] {
  return [
    ...(system === undefined ? [must('system', false, 'Choose a drive.', { field: 'driveId' })] : [answers(system)]),
    there(
      'drive',
      drive,
      drive => `${formatBytes(drive.capacityBytes, 'decimal')} ${drive.media}, serial number ${drive.serial}.`,
      'The drive is no longer in its bay.',
      { field: 'driveId' },
    ),
    nodesAnswer(node === undefined ? [] : [node]),
    ...(drive === undefined ? [] : [readCheck(drive, node)]),
    rule('no-boot', state !== 'boot', 'No node starts from it.', `${node?.name ?? 'Its node'} starts from it.`, {
      field: 'driveId',
      remedy: 'A boot drive is never erased from here.',
    }),
    rule('not-in-use', state !== 'in use' && state !== 'spare', 'No pool uses it.', 'A pool uses it.', {
      field: 'driveId',
      remedy: 'Take it out of its pool first.',
    }),
    rule('drive-fine', state !== 'failed', 'It can be written.', 'It has failed: nothing can be written to it.', {
      field: 'driveId',
      remedy: 'Destroy it by hand if what is on it matters.',
    }),
    rule(
      'last-four',
      isTyped,
      'The last four characters are right.',
      'Type the last four characters of its serial number, as they stand on its label.',
      { field: 'lastFour' },
    ),
    wantedCheck(left ?? null),
  ]
}

/** Erasing is proven by reading the drive through its node: where nobody can, nothing is erased. */
const readCheck = (drive: Drive, node: Node | undefined): PlanCheck =>
  rule(
    'can-be-read',
    node?.agentAddress != null,
    'It can be read through its node afterwards.',
    node === undefined
      ? `Drive ${suffixOf(drive.serial)} is in no node: it could not be read afterwards, so nothing would prove that it is empty.`
      : `${node.name} states no address to read its drives by, so nothing would prove that it is empty.`,
    { field: 'driveId', remedy: 'Erase it by the means of its system, or move it to a node.' },
  )

/** What an earlier use has left, which somebody may still want. */
const wantedCheck = (left: Drive['leftOver']): PlanCheck =>
  advise(
    'nothing-wanted',
    left === null,
    'The system names nothing left over on it.',
    left === null
      ? ''
      : `On it: ${left.partitions.join(', ')}; from ${left.system ?? 'an unknown system'}${left.lastUsedAt === null ? '' : `, last used ${left.lastUsedAt.slice(0, 10)}`}.`,
    { remedy: 'Make sure that nobody needs it.' },
  )

function stepsOf({ bytes, drive, intent, node }: Seen): Outlined<Step>[] {
  if (drive === undefined || node?.agentAddress == null) return []
  return [
    {
      step: {
        step: 'erase',
        systemId: intent.systemId,
        locator: drive.locator,
        isWhole: intent.isWhole,
        serial: drive.serial,
        agentAddress: node.agentAddress,
        capacityBytes: `${drive.capacityBytes ?? 0n}`,
      },
      words: intent.isWhole ? 'Overwrite every sector' : 'Overwrite tables and heads of file systems',
      seconds: 1,
      bytes,
      parts:
        drive === undefined ? [] : [{ name: 'drive', bytesPerSecond: sequentialBytesPerSecond(drive) * eraseShare }],
    },
  ]
}

async function prove(_: Intent, made: Plan<Step>, __: object, ports: ChangePorts): Promise<Evidence[]> {
  const step = made.steps[0]?.step
  if (step === undefined) return []
  const capacity = BigInt(step.capacityBytes)
  const aligned = (at: bigint) => (at / 4096n) * 4096n
  const places = [
    0n,
    1_048_576n,
    aligned(capacity / 4n),
    aligned(capacity / 2n),
    aligned((capacity * 3n) / 4n),
    aligned(capacity - BigInt(sampleBytes)),
  ]
  const agent = await ports.node(step.agentAddress)
  const evidence: Evidence[] = []
  for (const offset of places) {
    const nonZero = await agent.nonZeroBytes(step.serial, offset, sampleBytes)
    evidence.push({
      claim: `${sampleBytes} bytes at ${offset} read as zero`,
      holds: nonZero === 0,
      measured: { offsetBytes: `${offset}`, nonZeroBytes: `${nonZero}` },
    })
  }
  return evidence
}
