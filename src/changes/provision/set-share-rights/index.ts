import { allGrants } from '@/core/access'
import { one, type Estate } from '@/core/estate'
import { setShareRightsIntent, type SetShareRightsIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ChangePorts, ShareRightsWanted } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, there } from '../../parts/checks'
import { overOf, rightsAsked, rightsChecks, shareRightsFields } from '../../parts/files/shareChecks'
import { reachEffects } from '../../parts/files/shareReach'
import { rightsOf, triedShare } from '../../parts/files/shareTrials'
import { triedByAll } from '../../parts/files/smbTrials'
import { whoIsGranted } from '../../parts/files/whoIsGranted'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { standsAsAsked } from '../../parts/standsAsAsked'

type Step = Readonly<{
  step: 'set'
  systemId: string
  shareId: string
  locator: string
  name: string
  wanted: ShareRightsWanted
  before: ShareRightsWanted
}>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const system = look.one('systems', share?.systemId)
  // What is left out stays as it is.
  const { grants = share?.grants ?? [], acl = share?.acl ?? [] } = intent
  const wanted = rightsAsked({ ...intent, grants, acl })
  return outlined<Step>(estate, {
    title: `Set who may use ${share?.name ?? 'a share'}`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      ...(system === undefined ? [] : [answers(system)]),
      ...rightsChecks(
        { ...intent, grants, acl, serviceGrants: share?.serviceGrants ?? [] },
        estate,
        overOf(share?.protocols ?? ['NFSv4_2']),
      ),
    ],
    effects: share === undefined ? [] : reachEffects(estate, rightsOf(share), rightsOf(wanted)),
    undo: { possible: true, how: 'What was before is kept, and set again.' },
    steps:
      share === undefined
        ? []
        : [
            {
              words: `Set ${countWords(wanted.rules.length, 'rule', 'rules')}, ${countWords(wanted.grants.length, 'grant', 'grants')} and mode ${wanted.mode}`,
              seconds: 0.4,
              step: {
                step: 'set',
                systemId: share.systemId,
                shareId: share.id,
                locator: share.locator,
                name: share.name,
                wanted,
                before: rightsAsked(share),
              },
            },
          ],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof:
      'A host for each rule mounts it, writes as its owner and as somebody else; what happens must be what is computed.',
  })
}

async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const stated = await (await ports.of(step.systemId, 'shares')).at(step.locator)
  const estate = await ports.estate()
  const share = estate.shares.find(({ id }) => id === step.shareId)
  const service = estate.fileServices.find(({ id }) => id === share?.fileServiceId)
  const as = standsAsAsked(
    'The system states the rules, the grants and the mode as they were asked for',
    stated,
    step.wanted,
  )
  if (share === undefined || service === undefined) return [as]
  const set = triedShare({ ...share, ...step.wanted, rules: [...step.wanted.rules] }, service)
  return [as, ...(await triedByAll(ports, estate, set))]
}

const setTo = async ({ systemId, locator, name }: Step, rights: ShareRightsWanted, ports: ChangePorts) =>
  (await ports.of(systemId, 'shares')).setRights(locator, name, rights)

export const setShareRights: ChangeKind<Intent, Step> = {
  ...setShareRightsIntent,
  needs: ({ shareId, grants }) => [one('shares', shareId), ...whoIsGranted(grants)],
  needsAlso: ({ shares: [share] }, { grants = share?.grants ?? [] }) =>
    share === undefined ? undefined : whoIsGranted(allGrants({ ...share, grants })),
  plan,
  async runStep(step, _context, ports) {
    await setTo(step, step.wanted, ports)
    return { systemId: step.systemId, before: JSON.stringify(step.before) }
  },
  async undoStep(step, _context, ports) {
    await setTo(step, step.before, ports)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'shares', of: step, fields: [...shareRightsFields] })),
  reverse: ({ shareId }, facts) =>
    facts['before'] === undefined
      ? undefined
      : { kind: 'set-share-rights', intent: { shareId, ...(JSON.parse(facts['before']) as ShareRightsWanted) } },
}
