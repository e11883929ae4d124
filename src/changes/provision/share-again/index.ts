import { nameCheck, one, those, type Estate } from '@/core/estate'
import { shareAgainIntent, type ShareAgainIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { countWords } from '@/core/units'
import type { ShareLimitsWanted, ShareWanted } from '@/ports'
import type { ChangeKind, Facts } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { limitChecks, limitsAsked } from '../../parts/files/limitChecks'
import { protocolsOf, provenShare, settledShare, shareNameFree, smbChecks } from '../../parts/files/newShare'
import { overOf, rightsAsked, rightsChecks } from '../../parts/files/shareChecks'
import { reachEffects } from '../../parts/files/shareReach'
import { extraSteps, provenExtra, runExtra, type ExtraStep } from '../../parts/files/shareExtras'
import { rightsOf } from '../../parts/files/shareTrials'
import { whoIsGranted } from '../../parts/files/whoIsGranted'
import { fact, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'export'; systemId: string; fileSystemLocator: string; wanted: ShareWanted }> | ExtraStep

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const fileSystem = look.one('fileSystems', intent.fileSystemId)
  const { labels = [], warnPercent = null } = intent
  return {
    ...{ estate, intent, look, fileSystem },
    service: look.one('fileServices', intent.fileServiceId),
    system: look.one('systems', fileSystem?.systemId),
    volume: look.one('volumes', fileSystem?.volumeId),
    // It is called as its file system is where nobody says otherwise.
    name: intent.name === '' ? (fileSystem?.name ?? '') : intent.name,
    notes: { labels: [...labels], warnPercent },
    limits: limitsAsked(intent),
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { fileSystem, look, name, service, volume } = seen
  return outlined<Step>(estate, {
    title: `Share ${name === '' ? 'a file system' : name} again${service === undefined ? '' : ` at ${service.name}`}`,
    checks: [
      ...checksOf(seen),
      ...rightsChecks({ ...intent, serviceGrants: service?.grants ?? [] }, estate, overOf(protocolsOf(intent))),
      ...limitChecks(seen.limits, fileSystem === undefined ? undefined : { ...fileSystem, quotas: [], quotaUsage: [] }),
    ],
    effects: [
      {
        figure: 'files',
        label: 'Its files',
        unit: 'words',
        before: `kept on ${volume?.name ?? 'their volume'}`,
        after: 'shared, as they are',
      },
      ...limitsEffect(seen.limits),
      ...reachEffects(estate, undefined, rightsOf(rightsAsked(intent))),
    ],
    undo: { possible: true, how: 'It can be taken away again; its files stay.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: [`share:${service?.id ?? ''}/${name}`, ...(volume === undefined ? [] : [volume.id])],
    proof:
      'A host for each rule mounts it, writes as its owner and as somebody else; what happens must be what is computed.',
  })
}

const limitsEffect = ({ quotas, fileRules }: ShareLimitsWanted) => [
  {
    figure: 'limits',
    label: 'Quotas and kinds of files',
    unit: 'words' as const,
    before: null,
    after:
      quotas.length + fileRules.length === 0
        ? 'no limit'
        : `${countWords(quotas.length, 'quota', 'quotas')}, ${countWords(fileRules.length, 'rule', 'rules')}`,
  },
]

const checksOf = (seen: Seen): PlanCheck[] => [...thereChecks(seen), ...ownChecks(seen)]

/** What is shared, by what, and that both stand where they have to. */
function thereChecks({ fileSystem, service, system, volume }: Seen): PlanCheck[] {
  return [
    there('file-system', fileSystem, each => `${each.name} is there.`, 'Choose a file system.'),
    there('service', service, each => `Hosts reach it by ${each.name}.`, 'Choose a file service.', {
      field: 'fileServiceId',
    }),
    ...(system === undefined ? [] : [answers(system)]),
    ...(service === undefined || fileSystem === undefined
      ? []
      : [
          rule(
            'same-system',
            service.systemId === fileSystem.systemId,
            'The service stands on its system.',
            `${service.name} stands on another system than ${fileSystem.name}.`,
            { field: 'fileServiceId' },
          ),
        ]),
    ...(volume === undefined
      ? []
      : [
          rule(
            'volume',
            volume.state === 'in use',
            `${volume.name} is in use.`,
            `${volume.name} is in holding, and its files with it.`,
            { remedy: 'Bring the volume back first.' },
          ),
        ]),
  ]
}

/** That its files are nobody else's, and that its name and protocols can be. */
function ownChecks({ estate, fileSystem, intent, name, service }: Seen): PlanCheck[] {
  const shares = estate.shares.filter(each => each.volumeId === fileSystem?.volumeId)
  const seenBy = estate.mappings.filter(each => each.volumeId === fileSystem?.volumeId)
  return [
    rule(
      'unshared',
      shares.length === 0,
      'It is not shared now.',
      `It is shared as ${shares.map(each => each.path).join(', ')} already: two shares of the same files would have rights that contradict each other.`,
    ),
    rule(
      'unseen',
      seenBy.length === 0,
      'No host sees its volume as a disk.',
      `${seenBy.map(each => each.groupName).join(', ')} sees its volume as a disk, and could write over its files.`,
      { remedy: 'Take that mapping away first.' },
    ),
    nameCheck(name, 'the share'),
    shareNameFree(estate, name, service),
    ...smbChecks(estate, { ...intent, name }, service),
  ]
}

function stepsOf({ fileSystem, intent, limits, name, notes, service }: Seen): Outlined<Step>[] {
  if (fileSystem === undefined || service === undefined) return []
  const { systemId } = fileSystem
  const wanted = {
    ...{ name, path: `/${name}`, protocols: protocolsOf(intent), fileServiceLocator: service.locator },
    ...rightsAsked(intent),
  }
  return [
    {
      words: `Export it as ${service.name}:/${name}`,
      seconds: 0.4,
      step: { step: 'export', systemId, fileSystemLocator: fileSystem.locator, wanted },
    },
    ...extraSteps(systemId, name, { limits, notes, showsEarlier: intent.showsEarlier === true }),
  ]
}

/** A file system whose share was taken away, for hosts again: with the files that it has kept. */
export const shareAgain: ChangeKind<Intent, Step> = {
  ...shareAgainIntent,
  needs: ({ fileServiceId, fileSystemId, grants }) => [
    one('fileSystems', fileSystemId),
    those('shares', 'fileServiceId', fileServiceId),
    ...whoIsGranted(grants),
  ],
  needsAlso: ({ fileSystems: [fileSystem] }, { fileServiceId, grants }) =>
    fileSystem === undefined
      ? undefined
      : [
          one('volumes', fileSystem.volumeId),
          { kind: 'shares', field: 'volumeId', values: [fileSystem.volumeId] },
          those('shares', 'fileServiceId', fileServiceId),
          ...whoIsGranted(grants),
        ],
  plan,
  async runStep(step, { key, facts }, ports): Promise<Facts> {
    if (step.step === 'export') {
      const on = step.fileSystemLocator
      const shares = await ports.of(step.systemId, 'shares')
      const shareLocator = (await shares.byKey(on, key)) ?? (await shares.make(on, step.wanted, key))
      return { systemId: step.systemId, shareLocator }
    }
    await runExtra(step, fact(facts, 'shareLocator'), ports)
    return {}
  },
  async undoStep(step, { key }, ports) {
    // Limits and what is said of a share go with it.
    if (step.step !== 'export') return
    const shares = await ports.of(step.systemId, 'shares')
    const there = await shares.byKey(step.fileSystemLocator, key)
    if (there === undefined) return
    await shares.remove(there, step.wanted.name)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [there])
  },
  async prove(_intent, { steps }, facts, ports) {
    const [exported] = steps.flatMap(({ step }) => (step.step === 'export' ? [step] : []))
    if (exported === undefined) return []
    const locator = fact(facts, 'shareLocator')
    const evidence = await provenShare(ports, exported.systemId, locator, exported.wanted)
    for (const { step } of steps) if (step.step !== 'export') evidence.push(await provenExtra(step, locator, ports))
    return evidence
  },
  collects: itsSystem,
  settles: ({ steps }, { shareLocator }) => settledShare(steps, shareLocator),
  reverse: () => undefined,
}
