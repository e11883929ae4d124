import type { ExpandVolumeIntent as Intent } from '@/core/intents'
import { canBeAsked, type Estate } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { advise, answers, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'
import { fillEffects, fillSketch } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { lookInto } from '../../parts/look'
import { fitChecks, readSize } from '../../parts/size'
import type { Step } from './steps'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const pool = look.one('pools', volume?.poolId)
  const system = look.one('systems', volume?.systemId)
  const size = readSize(intent.size)
  const addedBytes = size.bytes - (volume?.sizeBytes ?? 0n)
  const groups = new Set(estate.mappings.filter(each => each.volumeId === volume?.id).map(each => each.hostGroupId))
  const hosts = estate.hosts.filter(canBeAsked).filter(({ hostGroupId }) => groups.has(hostGroupId))
  const claims = volume === undefined ? [] : [volume.id, ...(volume.isThin || pool === undefined ? [] : [pool.id])]
  return { addedBytes, claims, hosts, intent, look, pool, size, system, volume }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<Step> {
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
      'A host that sees it rescans and finds the new size. Where a file system stands on it, a file is written, read back and removed; else the new part is written to and read back. What was there is not touched.',
    ...(pool === undefined ? {} : { sketch: fillSketch(pool, addedBytes > 0n ? addedBytes : 0n) }),
  })
}

function checksOf({ addedBytes, hosts, intent, pool, size, system, volume }: Seen): readonly PlanCheck[] {
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
    ...(hosts.length === 0
      ? []
      : [
          advise(
            'file-system',
            intent.leavesFileSystem !== true,
            `What is mounted of it on ${hosts.map(({ name }) => name).join(', ')} grows with it, while it is in use.`,
            'The file system keeps its size: its users have no more room until it has been grown on the host.',
            { field: 'leavesFileSystem' },
          ),
        ]),
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

function stepsOf({ hosts, intent, size, system, volume }: Seen): Outlined<Step>[] {
  if (system === undefined || volume === undefined) return []
  const about = { systemId: system.id, volumeLocator: volume.locator, naa: volume.naa }
  const enlarge: Outlined<Step> = {
    words: `Enlarge it to ${formatBytes(size.bytes)}`,
    seconds: 0.6,
    step: { step: 'enlarge', ...about, fromBytes: `${volume.sizeBytes}`, sizeBytes: `${size.bytes}` },
  }
  if (hosts.length === 0 || intent.leavesFileSystem === true) return [enlarge]
  return [
    enlarge,
    {
      words: `Grow what is mounted of it on ${hosts.map(({ name }) => name).join(', ')}`,
      seconds: 1,
      step: {
        step: 'grow',
        systemId: system.id,
        naa: volume.naa,
        hosts: hosts.map(({ name, agentAddress }) => ({ name, agentAddress })),
      },
    },
  ]
}
