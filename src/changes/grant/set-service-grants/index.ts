import isEqual from 'fast-deep-equal'
import { everybody, type ShareGrant } from '@/core/access'
import { one, those, type Estate } from '@/core/estate'
import { setServiceGrantsIntent, type SetServiceGrantsIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { advise, answers, rule, there } from '../../parts/checks'
import { grantListChecks, overOf } from '../../parts/files/shareChecks'
import { triedShare } from '../../parts/files/shareTrials'
import { triedByAll } from '../../parts/files/smbTrials'
import { whoIsGranted } from '../../parts/files/whoIsGranted'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { standsAsAsked } from '../../parts/standsAsAsked'

type Step = Readonly<{
  step: 'set'
  systemId: string
  fileServiceId: string
  locator: string
  name: string
  grants: readonly ShareGrant[]
  before: readonly ShareGrant[]
}>

const shownGrants = 6

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const service = look.one('fileServices', intent.fileServiceId)
  const system = look.one('systems', service?.systemId)
  const shares = estate.shares.filter(each => each.fileServiceId === service?.id && overOf(each.protocols).isSmb)
  look.at('shares', shares)
  return { estate, look, service, system, shares, grants: intent.grants.map(each => ({ ...each })) }
}
type Seen = ReturnType<typeof see>

const namesOf = (grants: readonly ShareGrant[]) =>
  grants.length === 0
    ? 'nobody'
    : `${grants
        .slice(0, shownGrants)
        .map(
          ({ who, name, right }) =>
            `${who === everybody ? 'everybody' : name}: ${right === 'none' ? 'refused' : right}`,
        )
        .join(', ')}${grants.length > shownGrants ? ` and ${grants.length - shownGrants} more` : ''}`

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, service, shares, grants } = seen
  return outlined<Step>(estate, {
    title: `Set who may use every share of ${service?.name ?? 'a file service'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'grants',
        label: 'Of all its shares, over SMB',
        unit: 'words',
        before: service === undefined ? null : namesOf(service.grants),
        after: namesOf(grants),
      },
      {
        figure: 'shares',
        label: 'Shares over SMB for which they count',
        unit: 'count',
        before: null,
        after: shares.length,
      },
    ],
    undo: { possible: true, how: 'What was before is kept, and set again.' },
    steps:
      service === undefined
        ? []
        : [
            {
              words: `Set ${countWords(grants.length, 'grant', 'grants')} for all shares of ${service.name}`,
              seconds: 0.4,
              step: {
                ...{ step: 'set', systemId: service.systemId, fileServiceId: service.id, locator: service.locator },
                ...{ name: service.name, grants, before: service.grants },
              },
            },
          ],
    reads: look.reads,
    claims: service === undefined ? [] : [service.id],
    proof:
      'The service and each of its shares are asked for them again; people for whom they are sign in to one of the shares, and what happens must be what is computed.',
  })
}

function checksOf({ estate, service, system, shares, grants }: Seen): readonly PlanCheck[] {
  const refused = grants.filter(({ right }) => right === 'none')
  return [
    there('service', service, each => `${each.name} is there.`, 'Choose a file service.'),
    ...(system === undefined ? [] : [answers(system)]),
    ...(service === undefined
      ? []
      : [
          rule(
            'joined',
            service.joinedTo !== null,
            `People sign in by ${service.joinedTo ?? ''}.`,
            `${service.name} belongs to no directory: nobody could sign in.`,
            { remedy: 'Take it into a directory first.' },
          ),
        ]),
    ...grantListChecks(grants, estate),
    rule(
      'other',
      service === undefined || !isEqual(service.grants, grants),
      'They are others than now.',
      'They are set already.',
      { field: 'grants' },
    ),
    advise(
      'everywhere',
      refused.length === 0 || shares.length === 0,
      'Nobody is refused on all shares at once.',
      `${namesOf(refused)} on every share over SMB, ${countWords(shares.length, 'share', 'shares')}, whatever the share itself grants.`,
      { field: 'grants' },
    ),
  ]
}

async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const stated = await (await ports.of(step.systemId, 'fileServices')).at(step.locator)
  const as = standsAsAsked('The system states the grants as they were asked for', stated, { grants: step.grants })
  // What its shares state of them is read anew: a share that has others would let in whom nobody has let.
  await ports.records.collect(step.systemId)
  const estate = await ports.estate()
  const service = estate.fileServices.find(({ id }) => id === step.fileServiceId)
  const shares = estate.shares.filter(each => each.fileServiceId === step.fileServiceId && overOf(each.protocols).isSmb)
  const others = shares.filter(each => !isEqual(each.serviceGrants, step.grants))
  const [share] = shares
  if (share === undefined || service === undefined) return [as]
  const everyShare: Evidence = {
    claim: 'Each of its shares over SMB states them as its service’s',
    holds: others.length === 0,
    measured: { shares: `${shares.length}`, otherwise: others.map(({ name }) => name).join(', ') || 'none' },
  }
  return [
    as,
    everyShare,
    ...(await triedByAll(ports, estate, triedShare(share, { ...service, grants: [...step.grants] }))),
  ]
}

const setTo = async ({ systemId, locator, name }: Step, grants: readonly ShareGrant[], ports: ChangePorts) =>
  (await ports.of(systemId, 'fileServices')).setGrants(locator, name, grants)

export const setServiceGrants: ChangeKind<Intent, Step> = {
  ...setServiceGrantsIntent,
  needs: ({ fileServiceId, grants }) => [
    one('fileServices', fileServiceId),
    those('shares', 'fileServiceId', fileServiceId),
    ...whoIsGranted(grants),
  ],
  // Who may do what at a share follows from its own grants as well.
  needsAlso: ({ shares }, { grants }) => whoIsGranted([...grants, ...shares.flatMap(each => each.grants)]),
  plan,
  async runStep(step, _context, ports) {
    await setTo(step, step.grants, ports)
    return { systemId: step.systemId, before: JSON.stringify(step.before) }
  },
  async undoStep(step, _context, ports) {
    await setTo(step, step.before, ports)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'fileServices', of: step, fields: ['grants'] })),
  reverse: ({ fileServiceId }, { before }) =>
    before === undefined
      ? undefined
      : { kind: 'set-service-grants', intent: { fileServiceId, grants: JSON.parse(before) as ShareGrant[] } },
}
