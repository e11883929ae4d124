import { one, those, type Estate, type FileService, type Share } from '@/core/estate'
import {
  removeShareIntent,
  shareAgainIntent,
  type RemoveShareIntent as Intent,
  type ShareAgainIntent,
} from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangePorts, ShareWanted } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { answers, rule, there } from '../../parts/checks'
import { overOf, rightsAsked } from '../../parts/files/shareChecks'
import { reaching } from '../../parts/files/reaching'
import { hostsToTry, rightsOf } from '../../parts/files/shareTrials'
import { firstStep, itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'

type Step = Readonly<{
  step: 'unexport'
  systemId: string
  locator: string
  server: string
  wanted: ShareWanted
  /** What would share its files again. */
  again: ShareAgainIntent
}>

/** The same share of the same files: its rules, grants and limits, and what people said of it. */
function againOf({ fileSystems }: Estate, share: Share): ShareAgainIntent {
  const { isNfs, isSmb } = overOf(share.protocols)
  return {
    fileSystemId: fileSystems.find(({ volumeId }) => volumeId === share.volumeId)?.id ?? '',
    fileServiceId: share.fileServiceId,
    name: share.name,
    over: isNfs && isSmb ? 'NFS and SMB' : isSmb ? 'SMB' : 'NFS',
    ...rightsAsked(share),
    quotas: [...share.quotas],
    fileRules: [...share.fileRules],
    labels: [...share.labels],
    warnPercent: share.warnPercent,
    ...(share.snapshotDirectory?.isShown === true ? { showsEarlier: true } : {}),
  }
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const system = look.one('systems', share?.systemId)
  const service = look.one('fileServices', share?.fileServiceId)
  const volume = look.one('volumes', share?.volumeId)
  const isNamed = share !== undefined && intent.confirmedName === share.name
  return outlined<Step>(estate, {
    title: `Take ${share?.name ?? 'a share'} away`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      ...(system === undefined ? [] : [answers(system)]),
      rule(
        'name-typed',
        isNamed,
        'You have typed its name.',
        `Type ${share?.name ?? 'its name'} to say that you mean this one.`,
        { field: 'confirmedName' },
      ),
    ],
    effects: [
      {
        figure: 'files',
        label: 'Its files',
        unit: 'words',
        before: 'shared',
        after: `kept on ${volume?.name ?? 'their volume'}`,
      },
    ],
    undo: { possible: true, how: 'It is shared again, with the same rules.' },
    steps: share === undefined || service === undefined ? [] : [stepOf(estate, share, service)],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof: 'The system is asked for it again, and hosts that could mount it try to.',
  })
}

function stepOf(estate: Estate, share: Share, service: FileService): Outlined<Step> {
  const { systemId, locator, name, path, protocols } = share
  const wanted = { name, path, protocols, fileServiceLocator: service.locator, ...rightsAsked(share) }
  return {
    words: `No longer export ${path}`,
    seconds: 0.4,
    step: { step: 'unexport', systemId, locator, server: service.name, wanted, again: againOf(estate, share) },
  }
}

const fileSystemOf = (locator: string) => locator.split('/').slice(0, -2).join('/')

async function prove(step: Step, ports: ChangePorts): Promise<Evidence[]> {
  const stated = await (await ports.of(step.systemId, 'shares')).at(step.locator)
  const evidence: Evidence[] = [
    {
      claim: `The system no longer shares ${step.wanted.path}`,
      holds: stated?.name !== step.wanted.name,
      measured: { stated: stated?.name ?? 'nothing' },
    },
  ]
  const { hosts, evidence: told } = await reaching(
    ports,
    step.server,
    hostsToTry(await ports.estate(), rightsOf(step.wanted)),
  )
  for (const host of hosts) {
    const agent = await ports.host(host.agentAddress)
    const at = `/mnt/.wendrel/${step.wanted.name}`
    const refused = await agent.shares.mount(step.server, step.wanted.path, at)
    if (refused === undefined) await agent.unmount(at)
    evidence.push({
      claim: `${host.name} can no longer mount it`,
      holds: refused !== undefined,
      measured: { answered: refused ?? 'mounted' },
    })
  }
  return [...evidence, ...told]
}

export const removeShare: ChangeKind<Intent, Step> = {
  ...removeShareIntent,
  needs: ({ shareId }) => [one('shares', shareId)],
  needsAlso: ({ shares: [share] }) =>
    share === undefined
      ? undefined
      : [one('shares', share.id), one('volumes', share.volumeId), those('fileSystems', 'volumeId', share.volumeId)],
  plan,
  async runStep(step, _context, ports) {
    await (await ports.of(step.systemId, 'shares')).remove(step.locator, step.wanted.name)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [step.locator])
    return { systemId: step.systemId, again: JSON.stringify(step.again) }
  },
  async undoStep(step, { key }, ports) {
    const shares = await ports.of(step.systemId, 'shares')
    const stands = await shares.at(step.locator)
    const again = await shares.byKey(fileSystemOf(step.locator), key)
    if (stands === undefined && again === undefined) await shares.make(fileSystemOf(step.locator), step.wanted, key)
    await ports.records.collect(step.systemId)
    return undefined
  },
  prove: (_intent, made, _facts, ports) => prove(firstStep(made), ports),
  collects: itsSystem,
  reverse: (_intent, { again }) =>
    again === undefined ? undefined : { kind: shareAgainIntent.kind, intent: JSON.parse(again) as ShareAgainIntent },
}
