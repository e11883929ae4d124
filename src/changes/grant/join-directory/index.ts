import { one, type Estate } from '@/core/estate'
import { joinDirectoryIntent, type JoinDirectoryIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{
  step: 'join'
  systemId: string
  locator: string
  name: string
  address: string
  baseDn: string
  joinAs: string
  secretId: string
}>

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const service = look.one('fileServices', intent.fileServiceId)
  const system = look.one('systems', service?.systemId)
  const directory = look.one('directories', intent.directoryId)
  return { look, service, system, directory, joinAs: intent.joinAs.trim() }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, service, directory, joinAs } = seen
  return outlined<Step>(estate, {
    title: `Take ${service?.name ?? 'a file service'} into ${directory?.name ?? 'a directory'}`,
    checks: checksOf(seen, intent.secretId),
    effects: [
      {
        figure: 'joinedTo',
        label: 'Belongs to',
        unit: 'words',
        before: service?.joinedTo ?? null,
        after: directory?.baseDn ?? null,
      },
    ],
    undo: { possible: true, how: 'It is taken out again, and its account there goes.' },
    steps:
      service === undefined || directory === undefined
        ? []
        : [
            {
              words: `${service.name} joins ${directory.baseDn}`,
              seconds: 0.4,
              step: {
                step: 'join',
                systemId: service.systemId,
                locator: service.locator,
                name: service.name,
                address: directory.address,
                baseDn: directory.baseDn,
                joinAs,
                secretId: intent.secretId,
              },
            },
          ],
    reads: look.reads,
    claims: service === undefined ? [] : [service.id],
    proof: 'The service is asked to which directory it belongs, and by which account of its own.',
  })
}

function checksOf({ service, system, directory, joinAs }: Seen, secretId: string): readonly PlanCheck[] {
  return [
    there('service', service, each => `${each.name} is there.`, 'Choose a file service.'),
    ...(system === undefined ? [] : [answers(system)]),
    ...(service === undefined
      ? []
      : [
          rule(
            'alone',
            service.joinedTo === null,
            'It belongs to no directory yet.',
            `It belongs to ${service.joinedTo ?? ''}.`,
            { remedy: 'Take it out of that one first.' },
          ),
        ]),
    there('directory', directory, each => `It joins ${each.baseDn}.`, 'Choose a directory.', { field: 'directoryId' }),
    ...(directory === undefined
      ? []
      : [
          rule(
            'directory-answers',
            directory.state === 'answering',
            `${directory.name} answers.`,
            `${directory.name} does not answer: ${directory.stateWhy ?? 'it was not read yet'}`,
            { field: 'directoryId', remedy: 'Wait until it answers again; the draft is kept.' },
          ),
        ]),
    rule(
      'account',
      /^[a-z0-9.-]+=.+/i.test(joinAs),
      'It joins by that account.',
      'Give the distinguished name of an account that may take computers in.',
      { field: 'joinAs' },
    ),
    rule('password', secretId !== '', 'Its password is used once, and dropped.', 'Give its password.', {
      field: 'secretId',
    }),
  ]
}

export const joinDirectory: ChangeKind<Intent, Step> = {
  ...joinDirectoryIntent,
  needs: ({ fileServiceId }) => [one('fileServices', fileServiceId)],
  plan,
  async runStep({ systemId, locator, name, address, baseDn, joinAs, secretId }, _context, ports) {
    const services = await ports.of(systemId, 'fileServices')
    // Cut off after it had joined, it has: the password may be gone by then.
    if ((await services.at(locator))?.joinedTo !== baseDn) {
      const password = await ports.joiningSecret(secretId)
      await services.join(locator, name, { address, baseDn, userName: joinAs, password })
    }
    await ports.records.dropSecret(secretId)
    return { systemId }
  },
  async undoStep({ systemId, locator, name, secretId }, _context, ports) {
    await (await ports.of(systemId, 'fileServices')).leave(locator, name)
    await ports.records.dropSecret(secretId)
    return undefined
  },
  async prove(_intent, made, _facts, ports): Promise<Evidence[]> {
    const { systemId, locator, name, baseDn } = firstStep(made)
    const seen = await (await ports.of(systemId, 'fileServices')).at(locator)
    const joinedAs = seen?.joinedAs ?? ''
    return [
      {
        claim: `${name} belongs to ${baseDn}`,
        holds: seen?.joinedTo === baseDn,
        measured: { stated: seen?.joinedTo ?? 'none' },
      },
      {
        claim: 'It has an account of its own there',
        holds: joinedAs.toLowerCase().endsWith(`,${baseDn.toLowerCase()}`),
        measured: { account: joinedAs === '' ? 'none' : joinedAs },
      },
    ]
  },
  collects: itsSystem,
  reverse: ({ fileServiceId }) => ({ kind: 'leave-directory', intent: { fileServiceId } }),
}
