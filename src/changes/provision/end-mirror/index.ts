import { DateTime } from 'luxon'
import { byId, one, those, type Estate } from '@/core/estate'
import { endMirrorIntent, type EndMirrorIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { advise, rule } from '../../parts/checks'
import { fact, firstStep, NotKnown } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { mirroredChecks, mirroredEnds } from '../../parts/mirrorChecks'
import { endsOf, type Ends } from '../../parts/mirrors'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'part'; farLocator: string; days: number } & Ends>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const ends = mirroredEnds(look, estate, intent.volumeId)
  const serviceClass = byId(estate.serviceClasses, ends.volume?.classId ?? undefined)
  return { ...ends, days: serviceClass?.holdingDays ?? estate.settings.holdingDays, look, serviceClass }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { days, far, look, toSystem, volume } = seen
  const kept = `${countWords(days, 'day', 'days')}`
  return outlined<Step>(estate, {
    title: `End the mirror of ${volume?.name ?? 'a volume'}`,
    checks: checksOf(seen),
    effects: [
      {
        ...{ figure: 'copy', label: 'Also held by', unit: 'words', before: toSystem?.name ?? 'another system' },
        after: `nobody; what ${toSystem?.name ?? 'it'} holds stays as it is for ${kept}`,
      },
    ],
    oneWay: [
      'What has been written since is missing from the other end for good: a new mirror is filled from the beginning.',
    ],
    undo: { possible: true, how: 'It can be mirrored anew.' },
    steps:
      volume === undefined || toSystem === undefined || far === undefined
        ? []
        : [
            {
              words: `End it; keep what ${toSystem.name} holds for ${kept}`,
              seconds: 1,
              step: { step: 'part', ...endsOf(volume, toSystem), farLocator: far.locator, days },
            },
          ],
    reads: look.reads,
    claims: [volume?.id, far?.id].filter(id => id !== undefined),
    proof: 'Its system must say that it stands alone; the other must keep what it holds under a WWN of its own.',
  })
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { serviceClass, volume } = seen
  return [
    ...mirroredChecks(seen),
    rule('filled', volume?.mirror?.state !== 'filling', 'It is not being filled.', 'It is still being filled.', {
      remedy: 'Stop the change that fills it.',
    }),
    advise(
      'promised',
      serviceClass?.copyWithinMinutes == null,
      'No copy on another system is promised of it.',
      `${serviceClass?.name ?? 'Its class'} promises a copy on another system, which it would not have any more.`,
    ),
  ]
}

/** Ends it; the other end is kept like anything that is removed. */
async function part(step: Step, ports: ChangePorts): Promise<Facts> {
  const { systemId, toSystemId, volumeLocator, naa, farLocator, days } = step
  const mirrors = await ports.of(systemId, 'mirrors')
  if ((await mirrors.of(volumeLocator)) !== undefined) await mirrors.part(volumeLocator, naa)
  await ports.records.collect(systemId)
  await ports.records.collect(toSystemId)
  const farNaa = (await (await ports.of(toSystemId, 'volumes')).at(farLocator))?.naa ?? ''
  const farId = await ports.records.idAt(toSystemId, farLocator)
  // Under the volume's own name it would be the volume itself, or another mirror of it.
  if (farId === undefined || farNaa === naa) throw new NotKnown('what the other system keeps of it')
  await ports.records.hold(
    farId,
    DateTime.fromJSDate(await ports.now())
      .plus({ days })
      .toJSDate(),
  )
  // What was known there under the volume's name is not there any more.
  await ports.records.gone(toSystemId, [farLocator])
  return { systemId, toSystemId, farNaa, farId }
}

/** Ends a mirror: the volume stands alone again, and what the other system holds is kept in holding. */
export const endMirror: ChangeKind<Intent, Step> = {
  ...endMirrorIntent,
  needs: ({ volumeId }) => [one('volumes', volumeId)],
  needsAlso: ({ volumes }, { volumeId }) => [those('volumes', 'naa', byId(volumes, volumeId)?.naa)],
  plan,
  runStep: (step, _context, ports) => part(step, ports),
  undoStep: async (_step, { facts }) =>
    facts['farNaa'] === undefined ? undefined : 'The mirror is ended; it can be mirrored anew.',
  async prove(_intent, made, facts, ports) {
    const { systemId, toSystemId, volumeLocator, farLocator, naa } = firstStep(made)
    const end = await (await ports.of(systemId, 'mirrors')).of(volumeLocator)
    const own = await (await ports.of(systemId, 'volumes')).at(volumeLocator)
    const far = await (await ports.of(toSystemId, 'volumes')).at(farLocator)
    const evidence: Evidence[] = [
      {
        claim: 'Its system states it under its own WWN, mirrored to nobody',
        holds: own?.naa === naa && end === undefined,
        measured: { wwn: own?.naa ?? 'nothing', mirror: end?.state ?? 'none' },
      },
      {
        claim: 'The other system keeps what it holds under a WWN of its own',
        holds: far !== undefined && far.naa !== naa && far.naa === fact(facts, 'farNaa'),
        measured: { wwn: far?.naa ?? 'nothing' },
      },
    ]
    return evidence
  },
  collects: (_intent, _estate, { systemId, toSystemId }) => [systemId, toSystemId].filter(each => each !== undefined),
  reverse: () => undefined,
}
