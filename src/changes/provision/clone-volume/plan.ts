import type { CloneVolumeIntent as Intent } from '@/core/intents'
import { nameCheck, type Estate, type Pool } from '@/core/estate'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import { beyond, beyondCheck } from '../../parts/beyond'
import { advise, answers, rule } from '../../parts/checks'
import { countedName, nameFree, takeStep, usable } from '../../parts/copies'
import { fillSketch, freeBytesOf } from '../../parts/fill'
import { inUse } from '../../parts/inUse'
import { keptCheck } from '../../parts/keptFor'
import { lookInto } from '../../parts/look'
import { initiatorsOf, mappedCheck, writersCheck } from '../../parts/mapping'
import { outlined, type Outlined } from '../../parts/outline'
import { readSize } from '../../parts/size'
import type { Step } from './steps'

/** A pool's drives while hosts work on them too: what copying may count on. */
const copyBytesPerSecond = 0.9e9

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const volume = look.one('volumes', intent.volumeId)
  const system = look.one('systems', volume?.systemId)
  const source = look.one('pools', volume?.poolId)
  const pool = intent.poolId === '' ? source : look.one('pools', intent.poolId)
  const snapshot = intent.snapshotId === '' ? undefined : look.one('snapshots', intent.snapshotId)
  const group = look.one('hostGroups', intent.hostGroupId)
  const isCopied = pool !== undefined && pool.id !== source?.id
  const asked = intent.size === undefined || intent.size.trim() === '' ? undefined : readSize(intent.size)
  const sourceBytes = snapshot?.sizeBytes ?? volume?.sizeBytes ?? 0n
  const sizeBytes = asked === undefined || asked.bytes === 0n ? sourceBytes : asked.bytes
  const copiedBytes = isCopied ? (volume?.writtenBytes ?? 0n) : 0n
  return {
    asked,
    copiedBytes,
    estate,
    group,
    intent,
    isCopied,
    look,
    pool,
    sizeBytes,
    snapshot,
    source,
    sourceBytes,
    system,
    volume,
  }
}
type Seen = ReturnType<typeof see>

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { copiedBytes, group, isCopied, look, pool, snapshot, volume } = seen
  return outlined<Step>(estate, {
    title: `Clone ${snapshot?.name ?? volume?.name ?? 'a volume'}${intent.name === '' ? '' : ` as ${intent.name}`}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [
      'A clone is as large as its source, and can be made larger, never smaller.',
      ...(isCopied ? [] : ['Its snapshot cannot go while the clone shares with it; splitting it ends that.']),
    ],
    undo: {
      possible: true,
      how: `It can be removed; for ${estate.settings.holdingDays} days it can then be brought back.`,
    },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: volume === undefined ? [] : [volume.id, `volume:${volume.systemId}/${intent.name}`],
    proof:
      group === undefined
        ? 'The system is asked for the clone; without a mapping no host can compare it.'
        : `A host of ${group.name} is shown the snapshot too, reads both at sixteen places and compares them; then it is taken away again.`,
    ...(pool === undefined || !isCopied ? {} : { sketch: fillSketch(pool, copiedBytes) }),
    suggestions: { name: cloneName(seen) },
  })
}

/** The source's name with the next free number behind it. */
function cloneName({ estate, volume }: Seen): string {
  if (volume === undefined) return ''
  const taken = new Set([...estate.volumes, ...estate.snapshots].map(({ name }) => name))
  for (let number = 1; ; number += 1) {
    const name = `${volume.name.slice(0, 52)}-copy-${String(number).padStart(2, '0')}`
    if (!taken.has(name)) return name
  }
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { copiedBytes, estate, group, intent, isCopied, pool, snapshot, system, volume } = seen
  const initiators = initiatorsOf(estate, group)
  return [
    inUse(volume, volume => `${volume.name} is in use.`),
    ...(system === undefined ? [] : [answers(system)]),
    nameCheck(intent.name, 'the clone'),
    nameFree(estate, intent.name),
    ...(intent.snapshotId === '' ? [] : [usable(snapshot, volume)]),
    rule(
      'pool',
      pool !== undefined && pool.systemId === volume?.systemId && (pool.state === 'fine' || pool.state === 'degraded'),
      `${pool?.name ?? 'The pool'} is ready.`,
      pool?.systemId === volume?.systemId
        ? 'The pool is not ready.'
        : 'A clone is made within its system; moving a volume takes it to another.',
      { field: 'poolId' },
    ),
    ...(isCopied && pool !== undefined ? [roomFor(pool, copiedBytes)] : []),
    ...(isCopied && pool !== undefined ? keptCheck(pool, volume?.application ?? null) : []),
    mappedCheck(group, initiators, 'No host group: nobody will see the clone until it is mapped.'),
    ...writersCheck(estate, group, 'it'),
    ...twinChecks(seen),
    ...sizeChecks(seen),
    ...beyondCheck(system, group, beyond(estate, system, group)),
  ]
}

/** A copy of a file system bears its source's identifier. */
const twinChecks = ({ estate, group, volume }: Seen): PlanCheck[] =>
  group === undefined
    ? []
    : [
        advise(
          'same-host',
          !estate.mappings.some(each => each.volumeId === volume?.id && each.hostGroupId === group.id),
          'The group does not see the source.',
          `${group.name} sees the source too: the file system on both has one identifier, and must be given another before both are mounted.`,
          {
            field: 'hostGroupId',
            remedy: 'Give the copy a new identifier (tune2fs -U random, xfs_admin -U generate).',
          },
        ),
      ]

/** A clone holds all of its source: it can be larger, and what stands on it must then be grown. */
function sizeChecks({ asked, sizeBytes, sourceBytes }: Seen): readonly PlanCheck[] {
  if (asked === undefined) return []
  return [
    ...asked.checks,
    rule(
      'not-smaller',
      sizeBytes >= sourceBytes,
      `It is at least as large as its source, ${formatBytes(sourceBytes)}.`,
      `Its source has ${formatBytes(sourceBytes)}: a clone is never smaller.`,
      { field: 'size' },
    ),
    advise(
      'grown',
      sizeBytes <= sourceBytes,
      'The file system on it fits.',
      'The file system on it keeps its size until it is grown.',
      { field: 'size', remedy: 'Once it is mounted: xfs_growfs with its path, or resize2fs with its device.' },
    ),
  ]
}

const roomFor = (pool: Pool, bytes: bigint) =>
  rule(
    'fits',
    bytes <= freeBytesOf(pool),
    `${pool.name} has ${formatBytes(freeBytesOf(pool))} left.`,
    `${pool.name} has ${formatBytes(freeBytesOf(pool))} left; ${formatBytes(bytes)} would be copied to it.`,
    { field: 'poolId' },
  )

function effectsOf({ copiedBytes, pool, sizeBytes }: Seen): readonly Effect[] {
  return [
    {
      figure: 'ownBytes',
      label: 'What the clone takes at first',
      unit: 'bytes',
      before: null,
      after: `${copiedBytes}`,
    },
    { figure: 'sizeBytes', label: 'Its size', unit: 'bytes', before: null, after: `${sizeBytes}` },
    ...(pool === undefined
      ? []
      : [
          {
            figure: 'freeBytes',
            label: `Left to write in ${pool.name}`,
            unit: 'bytes' as const,
            before: `${freeBytesOf(pool)}`,
            after: `${freeBytesOf(pool) - copiedBytes}`,
          },
        ]),
  ]
}

function stepsOf(seen: Seen): Outlined<Step>[] {
  const { copiedBytes, estate, intent, isCopied, pool, snapshot, source, system, volume } = seen
  if (volume === undefined || source === undefined || pool === undefined || system === undefined) return []
  const name = snapshot?.name ?? countedName(estate, volume, 'for-clone')
  return [
    ...(snapshot === undefined
      ? [takeStep(volume, source, name, `clone ${intent.name}`, `Take ${name}, what it is now`)]
      : []),
    {
      words: isCopied ? `Clone it to ${pool.name}, where its bytes are copied` : `Clone it in ${pool.name}`,
      seconds: 0.6,
      ...(isCopied ? { bytes: copiedBytes, parts: [{ name: 'drives', bytesPerSecond: copyBytesPerSecond }] } : {}),
      step: {
        step: 'clone',
        systemId: system.id,
        snapshot: snapshot === undefined ? null : { locator: snapshot.locator, naa: snapshot.naa },
        name: intent.name,
        poolLocator: pool.locator,
      },
    },
    ...(seen.sizeBytes > seen.sourceBytes
      ? [
          {
            words: `Enlarge it to ${formatBytes(seen.sizeBytes)}`,
            seconds: 0.6,
            step: { step: 'enlarge' as const, systemId: system.id, sizeBytes: `${seen.sizeBytes}` },
          },
        ]
      : []),
    ...mapSteps(seen, system.id),
  ]
}

const mapSteps = ({ estate, group }: Seen, systemId: string): Outlined<Step>[] =>
  group === undefined
    ? []
    : [
        {
          words: `Map it to ${group.name}`,
          seconds: 0.35,
          step: { step: 'map', systemId, groupName: group.name, initiators: initiatorsOf(estate, group) },
        },
      ]
