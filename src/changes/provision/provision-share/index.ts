import { rankPools, type RankedPool } from '@/core/classes'
import { nameCheck, those, trendsOfPools, type Estate } from '@/core/estate'
import { provisionShareIntent, type ProvisionShareIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import type { ChangePorts } from '@/ports'
import { absent, answers, rule, there } from '../../parts/checks'
import { protocolsOf, provenShare, settledShare, shareNameFree, smbChecks } from '../../parts/files/newShare'
import { overOf, rightsAsked, rightsChecks } from '../../parts/files/shareChecks'
import { reachEffects } from '../../parts/files/shareReach'
import { extraSteps, provenExtra } from '../../parts/files/shareExtras'
import { labelChecks, labelsIn } from '../../parts/files/labels'
import { rightsOf } from '../../parts/files/shareTrials'
import { whoIsGranted } from '../../parts/files/whoIsGranted'
import { fillEffects } from '../../parts/fill'
import { applicationOf, keptCheck } from '../../parts/keptFor'
import { fact, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { around } from '../../parts/places'
import { fitChecks, readSize } from '../../parts/size'
import { runStep, undoStep, type Step } from './steps'

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const service = look.one('fileServices', intent.fileServiceId)
  const system = look.one('systems', service?.systemId)
  const serviceClass = look.one('serviceClasses', intent.classId)
  const size = readSize(intent.size)
  const own = estate.pools.filter(pool => pool.systemId === system?.id)
  const ranking = rankPools(own, {
    sizeBytes: size.bytes,
    isThin: true,
    serviceClass,
    application: applicationOf(intent.application),
    ...around(estate, []),
  })
  const best = serviceClass === undefined ? undefined : ranking.find(({ out }) => out.length === 0)?.poolId
  const pool = look.one('pools', intent.poolId === '' ? best : intent.poolId)
  const notes = { labels: labelsIn(intent.labels ?? ''), warnPercent: intent.warnPercent ?? null }
  return {
    estate,
    intent,
    look,
    notes,
    pool,
    ranking,
    service,
    serviceClass,
    size,
    system,
    wanted: rightsAsked(intent),
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, pool, service, size, wanted } = seen
  return outlined<Step>(estate, {
    title:
      `Provision share ${intent.name === '' ? '' : `/${intent.name} `}${service === undefined ? '' : `at ${service.name}`}`.trim(),
    checks: [
      ...checksOf(seen),
      ...size.checks,
      ...(pool === undefined || size.bytes === 0n ? [] : fitChecks(pool, size.bytes, true)),
      ...rightsChecks({ ...intent, serviceGrants: service?.grants ?? [] }, estate, overOf(protocolsOf(intent))),
    ],
    effects: [
      ...(pool === undefined ? [] : fillEffects(pool, size.bytes, 0n)),
      ...reachEffects(estate, undefined, rightsOf(wanted)),
    ],
    oneWay: ['A share can be made larger later, never smaller.'],
    undo: { possible: true, how: 'It can be taken away; its files stay on their volume until that is removed.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [`volume:${service?.systemId ?? ''}/${intent.name}`, `share:${service?.id ?? ''}/${intent.name}`],
    proof:
      'A host for each rule mounts it, writes as its owner and as somebody else; what happens must be what is computed.',
  })
}

function stepsOf({ intent, notes, pool, service, serviceClass, size, wanted }: Seen): Outlined<Step>[] {
  if (pool === undefined || service === undefined) return []
  const { systemId } = pool
  const { showsEarlier = false } = intent
  const create = {
    ...{ step: 'create' as const, systemId, name: intent.name, poolLocator: pool.locator },
    ...{ sizeBytes: `${size.bytes}`, isThin: true, application: applicationOf(intent.application) },
    ...(serviceClass === undefined ? {} : { classId: serviceClass.id }),
  }
  const exported = {
    ...{ name: intent.name, path: `/${intent.name}`, protocols: protocolsOf(intent) },
    ...{ fileServiceLocator: service.locator, ...wanted },
  }
  return [
    { words: `Create its volume ${intent.name}, ${formatBytes(size.bytes)}, thin`, seconds: 0.4, step: create },
    {
      words: 'Make a file system on it',
      seconds: 0.4,
      step: { step: 'file-system', systemId, name: intent.name },
    },
    {
      words: `Export it as ${service.name}:/${intent.name}`,
      seconds: 0.4,
      step: { step: 'export', systemId, wanted: exported },
    },
    ...extraSteps(systemId, intent.name, { limits: { quotas: [], fileRules: [] }, showsEarlier, notes }),
  ]
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { estate, intent, notes, service } = seen
  return [...ownChecks(seen), ...smbChecks(estate, intent, service), labelChecks(notes.labels)]
}

function ownChecks({ estate, intent, pool, ranking, service, serviceClass, system }: Seen): readonly PlanCheck[] {
  const volume = estate.volumes.find(each => each.name === intent.name && each.systemId === system?.id)
  return [
    there('service', service, each => `Hosts reach it by ${each.name}.`, 'Choose a file service.', {
      field: 'fileServiceId',
    }),
    ...(system === undefined ? [] : [answers(system)]),
    nameCheck(intent.name, 'the share'),
    shareNameFree(estate, intent.name, service),
    absent(
      'volume-free',
      volume,
      'No volume has the name.',
      each =>
        `A volume named ${each.name} exists${each.state === 'holding' ? ', in holding' : ''}; the volume of a share is called like it.`,
      { field: 'name' },
    ),
    poolCheck(intent, pool, ranking),
    ...(pool === undefined
      ? []
      : [
          rule(
            'same-system',
            pool.systemId === system?.id,
            'The pool stands on the system of the service.',
            `${pool.name} stands on another system than the service.`,
            { field: 'poolId' },
          ),
          rule(
            'pool-ready',
            pool.state === 'fine' || pool.state === 'degraded',
            `${pool.name} is ready.`,
            `${pool.name} is not ready.`,
            { field: 'poolId', remedy: 'Wait for it, or choose another pool.' },
          ),
          ...keptCheck(pool, applicationOf(intent.application)),
          ...classCheck(serviceClass?.name, ranking, pool.id),
        ]),
  ]
}

const poolCheck = (intent: Intent, pool: Seen['pool'], ranking: readonly RankedPool[]): PlanCheck =>
  there(
    'pool',
    pool,
    each => `It comes from ${each.name}.`,
    intent.classId === ''
      ? 'Choose a pool, or a class that finds one.'
      : `No pool of its system keeps the class: ${
          ranking
            .slice(0, 3)
            .map(each => `${each.name}: ${each.out.join('; ')}`)
            .join('. ') || 'it has none'
        }.`,
    { field: 'poolId' },
  )

function classCheck(name: string | undefined, ranking: readonly RankedPool[], poolId: string): PlanCheck[] {
  const out = ranking.find(each => each.poolId === poolId)?.out ?? []
  if (name === undefined) return []
  return [
    {
      rule: 'keeps-promises',
      level: 'warn',
      field: 'poolId',
      holds: out.length === 0,
      why: out.length === 0 ? `The pool keeps ${name}.` : `The pool does not keep ${name}: ${out.join('; ')}.`,
    },
  ]
}

async function prove(plan: Plan<Step>, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const evidence: Evidence[] = []
  for (const { step } of plan.steps) {
    if (step.step === 'create' || step.step === 'file-system') continue
    const locator = fact(facts, 'shareLocator')
    if (step.step === 'export') evidence.push(...(await provenShare(ports, step.systemId, locator, step.wanted)))
    else evidence.push(await provenExtra(step, locator, ports))
  }
  return evidence
}

export const provisionShare: ChangeKind<Intent, Step> = {
  ...provisionShareIntent,
  needs: ({ fileServiceId, name, grants, over }) => [
    trendsOfPools,
    those('volumes', 'name', name),
    those('shares', 'name', name),
    ...(over === undefined || over === 'NFS' ? [] : [those('shares', 'fileServiceId', fileServiceId)]),
    ...whoIsGranted(grants),
    those('fileServices', 'id', fileServiceId),
  ],
  plan,
  runStep,
  undoStep,
  prove: (_intent, made, facts, ports) => prove(made, facts, ports),
  collects: itsSystem,
  settles: ({ steps }, { shareLocator }) => settledShare(steps, shareLocator),
  reverse: () => undefined,
}
