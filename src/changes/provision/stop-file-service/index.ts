import { one, those, type Estate } from '@/core/estate'
import { stopFileServiceIntent, type StopFileServiceIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'remove'; systemId: string; locator: string; name: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const service = look.one('fileServices', intent.fileServiceId)
  const system = look.one('systems', service?.systemId)
  const served = estate.shares.map(({ name }) => name)
  return outlined<Step>(estate, {
    title: `Remove ${service?.name ?? 'a file service'}`,
    checks: [
      there('service', service, each => `${each.name} is there.`, 'Choose a file service.'),
      ...(system === undefined ? [] : [answers(system)]),
      rule('no-share', served.length === 0, 'It serves no share.', `It serves ${served.slice(0, 4).join(', ')}.`, {
        remedy: 'Take its shares away first.',
      }),
    ],
    undo: { possible: false, how: 'It can be started again by a change of its own.' },
    steps:
      service === undefined
        ? []
        : [
            {
              words: `Remove ${service.name}`,
              seconds: 0.4,
              step: { step: 'remove', systemId: service.systemId, locator: service.locator, name: service.name },
            },
          ],
    reads: look.reads,
    claims: service === undefined ? [] : [service.id],
    proof: 'The system is asked for it again.',
  })
}

export const stopFileService: ChangeKind<Intent, Step> = {
  ...stopFileServiceIntent,
  needs: ({ fileServiceId }) => [one('fileServices', fileServiceId), those('shares', 'fileServiceId', fileServiceId)],
  plan,
  async runStep({ systemId, locator, name }, _context, ports) {
    await (await ports.of(systemId, 'fileServices')).remove(locator, name)
    await ports.records.collect(systemId)
    await ports.records.gone(systemId, [locator])
    return { systemId }
  },
  undoStep: async () => 'It was removed; it can be started again.',
  async prove(_intent, made, _facts, ports) {
    const { systemId, locator, name } = firstStep(made)
    const found = await (await ports.of(systemId, 'fileServices')).at(locator)
    return [
      {
        claim: `The system no longer has ${name}`,
        holds: found?.name !== name,
        measured: { stated: found?.name ?? 'nothing' },
      },
    ]
  },
  collects: itsSystem,
  reverse: () => undefined,
}
