import { byId, one, type Estate, type Share } from '@/core/estate'
import { setShareLimitsIntent, type SetShareLimitsIntent as Intent } from '@/core/intents'
import type { Effect, Plan } from '@/core/plan'
import type { ChangePorts, ShareLimitsWanted } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, there } from '../../parts/checks'
import { limitChecks, limitsAsked } from '../../parts/files/limitChecks'
import { triedLimits } from '../../parts/files/limitTrials'
import { hostThatMay, triedShare } from '../../parts/files/shareTrials'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { standsAsAsked } from '../../parts/standsAsAsked'

type Step = Readonly<{
  step: 'limit'
  systemId: string
  shareId: string
  locator: string
  name: string
  wanted: ShareLimitsWanted
  before: ShareLimitsWanted
}>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const system = look.one('systems', share?.systemId)
  const wanted = limitsAsked(intent)
  return outlined<Step>(estate, {
    title: `Limit what may be written to ${share?.name ?? 'a share'}`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      ...(system === undefined ? [] : [answers(system)]),
      ...limitChecks(wanted, share),
    ],
    effects: share === undefined ? [] : effectsOf(share, wanted),
    undo: { possible: true, how: 'What was before is kept, and set again.' },
    steps:
      share === undefined
        ? []
        : [
            {
              words: `Set ${wanted.quotas.length} quotas and ${wanted.fileRules.length} rules for kinds of files`,
              seconds: 0.4,
              step: {
                step: 'limit',
                systemId: share.systemId,
                shareId: share.id,
                locator: share.locator,
                name: share.name,
                wanted,
                before: limitsAsked(share),
              },
            },
          ],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof:
      'A host that may write is refused more than each hard limit leaves, and a file of each forbidden kind; nothing is taken from others, and all of it is taken away again.',
  })
}

const effectsOf = (share: Share, { quotas, fileRules }: ShareLimitsWanted): Effect[] => [
  { figure: 'quotas', label: 'Quotas', unit: 'count', before: share.quotas.length, after: quotas.length },
  {
    figure: 'fileRules',
    label: 'Rules for kinds of files',
    unit: 'count',
    before: share.fileRules.length,
    after: fileRules.length,
  },
]

async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const stated = await (await ports.of(step.systemId, 'shares')).at(step.locator)
  const estate = await ports.estate()
  const share = byId(estate.shares, step.shareId)
  const service = byId(estate.fileServices, share?.fileServiceId)
  const evidence = [standsAsAsked('The system states the limits as they were asked for', stated, step.wanted)]
  const host = share === undefined ? undefined : hostThatMay(estate, share, 'write')
  if (share === undefined || service === undefined || host === undefined) return evidence
  const as = { uid: share.ownerUid, gid: share.ownerGid, groups: [] }
  const trial = {
    ports,
    share: triedShare(share, service),
    host,
    as,
    limits: step.wanted,
    usage: stated?.quotaUsage ?? [],
  }
  return [...evidence, ...(await triedLimits(trial))]
}

export const setShareLimits: ChangeKind<Intent, Step> = {
  ...setShareLimitsIntent,
  needs: ({ shareId }) => [one('shares', shareId)],
  plan,
  async runStep({ systemId, locator, name, wanted, before }, _context, ports) {
    await (await ports.of(systemId, 'shares')).setLimits(locator, name, wanted)
    return { systemId, before: JSON.stringify(before) }
  },
  async undoStep({ systemId, locator, name, before }, _context, ports) {
    await (await ports.of(systemId, 'shares')).setLimits(locator, name, before)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: itsSystem,
  settles: made => made.steps.map(({ step }) => ({ kind: 'shares', of: step, fields: ['quotas', 'fileRules'] })),
  reverse: ({ shareId }, facts) =>
    facts['before'] === undefined
      ? undefined
      : { kind: 'set-share-limits', intent: { shareId, ...(JSON.parse(facts['before']) as ShareLimitsWanted) } },
}
