import { mirrorVolumeIntent, type MirrorVolumeIntent as Intent } from '@/core/intents'
import { one, those, type Estate } from '@/core/estate'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { fillSketch, freeBytesOf } from '../../parts/fill'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { bothEnds, endChecks } from '../../parts/mirrorChecks'
import { mirror, mirrorStep, proveAlike, takeMirrorBack, type MirrorStep } from '../../parts/mirrors'
import { outlined } from '../../parts/outline'

function plan(estate: Estate, intent: Intent): Plan<MirrorStep> {
  const seen = bothEnds(lookInto(estate), estate, intent)
  const { from, look, movedBytes, system, to, toSystem, volume } = seen
  const { ratePercent } = intent
  return outlined<MirrorStep>(estate, {
    title: `Mirror ${volume?.name ?? 'a volume'} to ${toSystem?.name ?? 'another system'}`,
    checks: endChecks(seen),
    effects:
      to === undefined
        ? []
        : [
            {
              ...{ figure: 'writes', label: 'A write waits for', unit: 'words', before: system?.name ?? 'its system' },
              after: 'both systems and the line',
            },
            {
              ...{ figure: `freeBytes/${to.id}`, label: `Left to write in ${to.name}`, unit: 'bytes' },
              ...{ before: `${freeBytesOf(to)}`, after: `${freeBytesOf(to) - movedBytes}` },
            },
          ],
    undo: {
      possible: true,
      how: 'The mirror can be ended again; its hosts notice nothing but that writes are quicker.',
    },
    steps:
      volume === undefined || from === undefined || to === undefined || system === undefined || toSystem === undefined
        ? []
        : [mirrorStep({ volume, from, to, system, toSystem, movedBytes, ratePercent })],
    reads: look.reads,
    claims: [volume?.id, to?.id].filter(id => id !== undefined),
    proof: 'Both systems are asked: each must say that it holds what the other does, under the same WWN.',
    ...(to === undefined || volume === undefined ? {} : { sketch: fillSketch(to, volume.sizeBytes) }),
  })
}

/** Keeps a volume alike on another system: every write reaches both before it is acknowledged. */
export const mirrorVolume: ChangeKind<Intent, MirrorStep> = {
  ...mirrorVolumeIntent,
  needs: ({ volumeId }) => [
    one('volumes', volumeId),
    those('shares', 'volumeId', volumeId),
    those('fileSystems', 'volumeId', volumeId),
  ],
  plan,
  runStep: (step, { facts }, ports) => mirror(step, facts, ports),
  undoStep: (step, { facts }, ports) => takeMirrorBack(step, facts, ports),
  prove: (_intent, made, facts, ports) => proveAlike(firstStep(made), fact(facts, 'toLocator'), ports),
  collects: (_intent, _estate, { systemId, toSystemId }) => [systemId, toSystemId].filter(each => each !== undefined),
  reverse: ({ volumeId }) => ({ kind: 'end-mirror', intent: { volumeId } }),
}
