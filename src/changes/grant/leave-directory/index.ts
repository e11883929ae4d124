import { one, those, type Estate } from '@/core/estate'
import { leaveDirectoryIntent, type LeaveDirectoryIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { overOf } from '../../parts/files/shareChecks'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'leave'; systemId: string; locator: string; name: string }>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const service = look.one('fileServices', intent.fileServiceId)
  const system = look.one('systems', service?.systemId)
  const spoken = estate.shares.filter(each => each.fileServiceId === service?.id && overOf(each.protocols).isSmb)
  look.at('shares', spoken)
  return { look, service, system, spoken }
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, service } = seen
  return outlined<Step>(estate, {
    title: `Take ${service?.name ?? 'a file service'} out of its directory`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'joinedTo',
        label: 'Belongs to',
        unit: 'words',
        before: service?.joinedTo ?? null,
        after: 'no directory',
      },
    ],
    undo: { possible: false, how: 'It joins again by a change of its own, by an account that may take it in.' },
    steps:
      service === undefined
        ? []
        : [
            {
              words: `${service.name} leaves ${service.joinedTo ?? 'it'}`,
              seconds: 0.4,
              step: { step: 'leave', systemId: service.systemId, locator: service.locator, name: service.name },
            },
          ],
    reads: look.reads,
    claims: service === undefined ? [] : [service.id],
    proof: 'The service is asked to which directory it belongs.',
  })
}

function checksOf({ service, system, spoken }: ReturnType<typeof see>): readonly PlanCheck[] {
  return [
    there('service', service, each => `${each.name} is there.`, 'Choose a file service.'),
    ...(system === undefined ? [] : [answers(system)]),
    ...(service === undefined
      ? []
      : [
          rule(
            'joined',
            service.joinedTo !== null,
            `It belongs to ${service.joinedTo ?? ''}.`,
            'It belongs to no directory.',
          ),
        ]),
    rule(
      'nothing-over-smb',
      spoken.length === 0,
      'It shares nothing over SMB.',
      `Over SMB it shares ${spoken
        .slice(0, 4)
        .map(({ name }) => name)
        .join(', ')}: nobody could sign in any more.`,
      { remedy: 'Take those shares away first.' },
    ),
  ]
}

export const leaveDirectory: ChangeKind<Intent, Step> = {
  ...leaveDirectoryIntent,
  needs: ({ fileServiceId }) => [one('fileServices', fileServiceId), those('shares', 'fileServiceId', fileServiceId)],
  plan,
  async runStep({ systemId, locator, name }, _context, ports) {
    await (await ports.of(systemId, 'fileServices')).leave(locator, name)
    return { systemId }
  },
  undoStep: async () => 'It has left its directory; it can join again.',
  async prove(_intent, made, _facts, ports) {
    const { systemId, locator, name } = firstStep(made)
    const seen = await (await ports.of(systemId, 'fileServices')).at(locator)
    return [
      {
        claim: `${name} belongs to no directory`,
        holds: seen !== undefined && seen.joinedTo === null,
        measured: { stated: seen === undefined ? 'the service is gone' : (seen.joinedTo ?? 'none') },
      },
    ]
  },
  collects: itsSystem,
  reverse: () => undefined,
}
