import { byId, canBeAsked, one, type Estate, type Pool, type Volume } from '@/core/estate'
import { convertVolumeIntent, type ConvertVolumeIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { answers, rule } from '../../parts/checks'
import { fillEffects, fillSketch } from '../../parts/fill'
import { lookFrom, seesIt } from '../../parts/hostProof'
import { inUse } from '../../parts/inUse'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { fitChecks } from '../../parts/size'
import { waitForTask } from '../../parts/waitForTask'
import type { ChangePorts } from '@/ports'

type Step = Readonly<{ step: 'convert'; systemId: string; locator: string; naa: string; isThin: boolean }>

/** What it takes from its pool at once where it becomes thick, and gives back where it becomes thin. */
const unwritten = ({ sizeBytes, writtenBytes }: Volume) => (sizeBytes > writtenBytes ? sizeBytes - writtenBytes : 0n)

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const pool = look.one('pools', volume?.poolId)
  const system = look.one('systems', volume?.systemId)
  const taken = volume === undefined || intent.isThin ? 0n : unwritten(volume)
  const words = `Make ${volume?.name ?? 'a volume'} ${intent.isThin ? 'thin' : 'thick'}`
  return outlined<Step>(estate, {
    title: words,
    checks: [
      inUse(volume, each => `${each.name} is ${each.isThin ? 'thin' : 'thick'} now.`),
      ...(volume === undefined ? [] : checksOf(volume, pool, intent.isThin)),
      ...(system === undefined ? [] : [answers(system)]),
    ],
    effects: pool === undefined ? [] : fillEffects(pool, 0n, taken),
    undo: { possible: true, how: 'It can be converted back.' },
    steps:
      volume === undefined || system === undefined
        ? []
        : [
            {
              words: intent.isThin ? words : `${words}: what it does not have yet is zeroed`,
              seconds: intent.isThin ? 0.3 : 1,
              step: {
                ...{ step: 'convert', systemId: system.id, locator: volume.locator, naa: volume.naa },
                isThin: intent.isThin,
              },
            },
          ],
    reads: look.reads,
    claims: [volume, taken > 0n ? pool : undefined].flatMap(each => each?.id ?? []),
    proof: 'The system states it, and that it is ready; hosts that see it find it with the same WWN and size.',
    ...(pool === undefined ? {} : { sketch: fillSketch(pool, 0n) }),
  })
}

function checksOf(volume: Volume, pool: Pool | undefined, isThin: boolean): PlanCheck[] {
  return [
    rule('other', volume.isThin !== isThin, 'It becomes the other.', `It is ${isThin ? 'thin' : 'thick'} already.`, {
      field: 'isThin',
    }),
    rule(
      'stands-alone',
      volume.cloneOfId === null,
      'It shares with no other.',
      'It shares with the snapshot that it was made of.',
      { remedy: 'Split it from its parent first.' },
    ),
    ...(isThin
      ? [
          rule(
            'given-back',
            true,
            'What is written of it stays; what its hosts have written and deleted counts as written until they discard it.',
            '',
          ),
        ]
      : pool === undefined
        ? []
        : fitChecks(pool, unwritten(volume), false).map(each => ({
            ...each,
            field: 'isThin',
            remedy: `Make room of ${formatBytes(unwritten(volume))} first, move it to another pool, or leave it thin.`,
          }))),
  ]
}

async function convert({ systemId, locator, naa, isThin }: Step, ports: ChangePorts): Promise<Facts> {
  const volumes = await ports.of(systemId, 'volumes')
  const now = await volumes.at(locator)
  // One that was asked for by a run that was cut off may still be at work.
  const { task } = now?.isThin === isThin ? now : await volumes.convert(locator, naa, isThin)
  const isDone = async () => {
    const then = await volumes.at(locator)
    return then !== undefined && then.isThin === isThin && then.isReady
  }
  await waitForTask({ systemId, task, words: 'Zeroing what it did not have', isDone }, ports)
  return { systemId }
}

/** The system's own word, and that hosts still find the same disk. */
async function prove({ volumeId }: Intent, made: Plan<Step>, ports: ChangePorts): Promise<Evidence[]> {
  const { systemId, locator, naa, isThin } = firstStep(made)
  const estate = await ports.estate()
  const volume = byId(estate.volumes, volumeId)
  const stated = await (await ports.of(systemId, 'volumes')).at(locator)
  const evidence: Evidence[] = [
    {
      claim: `The system states that it is ${isThin ? 'thin' : 'thick'}, and ready`,
      holds: stated?.naa === naa && stated.isThin === isThin && stated.isReady,
      measured: {
        stated: stated === undefined ? 'nothing' : stated.isThin ? 'thin' : 'thick',
        wwn: stated?.naa ?? 'nothing',
      },
    },
  ]
  const groups = new Set(estate.mappings.filter(each => each.volumeId === volumeId).map(each => each.hostGroupId))
  const hosts = estate.hosts.filter(canBeAsked).filter(({ hostGroupId }) => groups.has(hostGroupId))
  const targets = hosts.length === 0 ? [] : await (await ports.of(systemId, 'mappings')).targets()
  for (const host of hosts) {
    const { device } = await lookFrom(ports, host, targets, naa)
    evidence.push(seesIt(host, device, naa, volume?.sizeBytes ?? 0n))
  }
  return evidence
}

export const convertVolume: ChangeKind<Intent, Step> = {
  ...convertVolumeIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  plan,
  runStep: (step, _context, ports) => convert(step, ports),
  async undoStep(step, _context, ports) {
    await convert({ ...step, isThin: !step.isThin }, ports)
    return undefined
  },
  prove: (intent, made, _facts, ports) => prove(intent, made, ports),
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'volumes', of: step, fields: ['isThin'] })),
  reverse: ({ volumeId, isThin }) => ({ kind: 'convert-volume', intent: { volumeId, isThin: !isThin } }),
}
