import { expandVolumeIntent, type ExpandVolumeIntent as Intent } from '@/core/intents'
import { type Estate, one } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { fillEffects, fillSketch } from '../../parts/fill'
import { lookFrom, seesIt, writesAndReadsBack } from '../../parts/hostProof'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { fitChecks, readSize } from '../../parts/size'
import { waitForTask } from '../../parts/waitForTask'
import { fact, firstStep } from '../../parts/known'

type Step = Readonly<{
  step: 'enlarge'
  systemId: string
  volumeLocator: string
  naa: string
  fromBytes: string
  sizeBytes: string
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const pool = look.one('pools', volume?.poolId)
  const system = look.one('systems', volume?.systemId)
  const size = readSize(intent.size)
  const addedBytes = size.bytes - (volume?.sizeBytes ?? 0n)
  const claims = volume === undefined ? [] : [volume.id, ...(volume.isThin || pool === undefined ? [] : [pool.id])]
  return { addedBytes, claims, look, pool, size, system, volume }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { addedBytes, claims, look, pool, size, volume } = seen

  return outlined<Step>(estate, {
    title: `Expand ${volume?.name ?? 'a volume'} to ${formatBytes(size.bytes)}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [`${volume?.name ?? 'The volume'} cannot be made smaller again.`],
    undo: { possible: false, how: 'It cannot be undone; the data stays as it is.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims,
    proof:
      'A host that sees it rescans, finds the new size, and writes to the new part and reads it back. What was there is not touched.',
    ...(pool === undefined ? {} : { sketch: fillSketch(pool, addedBytes > 0n ? addedBytes : 0n) }),
  })
}

function checksOf({ addedBytes, pool, size, system, volume }: Seen): readonly PlanCheck[] {
  return [
    inUse(volume, volume => `${volume.name} has ${formatBytes(volume.sizeBytes)} now.`),
    ...size.checks,
    ...(volume === undefined || size.bytes === 0n
      ? []
      : [
          rule(
            'grows',
            addedBytes > 0n,
            `It grows by ${formatBytes(addedBytes)}.`,
            `It has ${formatBytes(volume.sizeBytes)} already, and a volume is never made smaller.`,
            { field: 'size', remedy: `Give more than ${formatBytes(volume.sizeBytes)}.` },
          ),
        ]),
    ...(pool === undefined || addedBytes <= 0n ? [] : fitChecks(pool, addedBytes, volume?.isThin ?? true)),
    ...(system === undefined ? [] : [answers(system)]),
  ]
}

function effectsOf({ addedBytes, pool, size, volume }: Seen): readonly Effect[] {
  return pool === undefined
    ? []
    : [
        {
          figure: 'sizeBytes',
          label: 'Size',
          unit: 'bytes',
          before: `${volume?.sizeBytes ?? 0n}`,
          after: `${size.bytes}`,
        },
        ...fillEffects(pool, addedBytes > 0n ? addedBytes : 0n, volume?.isThin === false ? addedBytes : 0n),
      ]
}

function stepsOf({ size, system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  return [
    {
      words: `Enlarge it to ${formatBytes(size.bytes)}`,
      seconds: 0.6,
      step: {
        step: 'enlarge',
        systemId: system.id,
        volumeLocator: volume.locator,
        naa: volume.naa,
        fromBytes: `${volume.sizeBytes ?? 0n}`,
        sizeBytes: `${size.bytes}`,
      },
    },
  ]
}

export const expandVolume: ChangeKind<Intent, Step> = {
  ...expandVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  async runStep(step, _context, ports) {
    const volumes = await ports.of(step.systemId, 'volumes')
    const sizeBytes = BigInt(step.sizeBytes)
    const now = await volumes.at(step.volumeLocator)
    const isAsked = now !== undefined && now.sizeBytes >= sizeBytes
    // One that was asked for by a run that was cut off may still be at work on the new part.
    const task = !isAsked
      ? (await volumes.enlarge(step.volumeLocator, step.naa, sizeBytes)).task
      : now.isReady
        ? null
        : now.task
    const isDone = async () => {
      const then = await volumes.at(step.volumeLocator)
      return then !== undefined && then.sizeBytes >= sizeBytes && then.isReady
    }
    await waitForTask({ systemId: step.systemId, task, words: 'Zeroing the new part', isDone }, ports)
    return { systemId: step.systemId, naa: step.naa, fromBytes: step.fromBytes, volumeLocator: step.volumeLocator }
  },
  undoStep: async step => `The volume keeps the size that it has now, at least ${formatBytes(BigInt(step.fromBytes))}.`,
  async prove(intent, plan, facts, ports) {
    const estate = await ports.estate()
    const naa = fact(facts, 'naa')
    const sizeBytes = BigInt(firstStep(plan).sizeBytes)
    const groups = new Set(
      estate.mappings.filter(mapping => mapping.volumeId === intent.volumeId).map(mapping => mapping.hostGroupId),
    )
    const hosts = estate.hosts.filter(host => groups.has(host.hostGroupId) && host.initiators.length > 0)
    const systemId = fact(facts, 'systemId')
    const volumes = await ports.of(systemId, 'volumes')
    const stated = await volumes.at(fact(facts, 'volumeLocator'))
    const evidence: Evidence[] = [
      {
        claim: 'The system states the new size, and that all of it is ready',
        holds: stated?.naa === naa && stated.sizeBytes === sizeBytes && stated.isReady,
        measured: {
          state: stated === undefined ? 'not there' : stated.isReady ? 'ready' : 'not ready',
          statedBytes: `${stated?.sizeBytes ?? 'nothing'}`,
          askedBytes: `${sizeBytes}`,
        },
      },
    ]
    const targets = hosts.length === 0 ? [] : await (await ports.of(systemId, 'mappings')).targets()
    for (const [index, host] of hosts.entries()) {
      const { agent, device } = await lookFrom(ports, host, targets, naa)
      evidence.push(seesIt(host, device, naa, sizeBytes))
      if (device !== undefined && index === 0)
        evidence.push(...(await writesAndReadsBack(agent, host, naa, BigInt(fact(facts, 'fromBytes')), sizeBytes, naa)))
    }
    return evidence
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: () => undefined,
}
