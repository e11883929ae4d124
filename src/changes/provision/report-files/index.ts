import { byId, hasAgent, one, those, type Estate } from '@/core/estate'
import { allGrants, askingFrom, exportTable, mayBySmb, mayFile } from '@/core/access'
import { reportFilesIntent, type ReportFilesIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import { formatBytes } from '@/core/units'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { overOf } from '../../parts/files/shareChecks'
import { rightsOf, senderOf } from '../../parts/files/shareTrials'
import { triedAs } from '../../parts/files/triedAs'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { mountedAt, WalkEnded, walked, type Walk } from './walk'

type Step = Readonly<{ step: 'walk'; systemId: string }> & Walk

/** What a host lists of a share in a second, by experience. */
const filesASecond = 20_000
const usualFileBytes = 8 * 1024 ** 2

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const service = look.one('fileServices', share?.fileServiceId)
  const host = look.one('hosts', intent.hostId)
  const { person, is } = triedAs(estate, { ...intent, groups: [] })
  const isNamed = intent.personId === undefined || intent.personId === '' || person !== undefined
  const from = senderOf(estate, host)
  return { look, share, service, host, from, person, is, isNamed, seenAs: person?.name ?? `uid ${is.uid}` }
}
type Seen = ReturnType<typeof see>

const isOverSmb = ({ share, person }: Seen) =>
  share !== undefined && person !== undefined && overOf(share.protocols).isSmb

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, share } = seen
  return outlined<Step>(estate, {
    title: `Report on the files of ${share?.name ?? 'a share'}`,
    checks: checksOf(seen),
    effects: [
      {
        figure: 'read',
        label: 'To walk through',
        unit: 'words',
        before: null,
        after: share === undefined ? null : `${formatBytes(share.usedBytes)} in files`,
      },
    ],
    undo: { possible: true, how: 'Nothing is changed on the share; what was found can be dropped.' },
    steps: stepsOf(seen),
    reads: look.reads,
    claims: share === undefined ? [] : [`walk:${share.id}`],
    proof: 'Its largest file is asked for again, and all of them together are no more than its system says is used.',
  })
}

/** Whether whoever it looks as may read the root directory from there. */
function mayRead(seen: Seen): boolean {
  const { share, from, is } = seen
  if (share === undefined) return true
  if (isOverSmb(seen)) return mayBySmb(allGrants(share), is, 'read', rightsOf(share).root).allowed
  const request = {
    ...askingFrom(from),
    ...{ uid: is.uid, gid: is.gid, groups: is.groups, flavour: 'sys' as const, operation: 'read' as const },
  }
  return mayFile(exportTable(share.rules), request, rightsOf(share).root).allowed
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { share, host, isNamed, seenAs } = seen
  return [
    there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
    there('host', host, each => `${each.name} looks.`, 'Choose a host.', { field: 'hostId' }),
    ...(host === undefined
      ? []
      : [
          rule('asked', hasAgent(host), `${host.name} can be asked.`, `${host.name} has no agent that could look.`, {
            field: 'hostId',
          }),
        ]),
    rule('person', isNamed, `It looks as ${seenAs}.`, 'That person is in no directory.', { field: 'personId' }),
    rule(
      'way',
      share === undefined || isOverSmb(seen) || overOf(share.protocols).isNfs,
      'The share is reached so.',
      'It is shared over SMB only: choose a person, as whom the host signs in.',
      { field: 'personId' },
    ),
    advise(
      'may-read',
      mayRead(seen),
      `${seenAs} may read its root directory.`,
      `${seenAs} may not read its root directory: nothing would be found.`,
      { field: 'personId' },
    ),
  ]
}

function stepsOf(seen: Seen): readonly Outlined<Step>[] {
  const { share, service, host, person, is, seenAs } = seen
  if (share === undefined || service === undefined || host === undefined || !hasAgent(host)) return []
  const isBySmb = person !== undefined && isOverSmb(seen)
  return [
    {
      words: `${host.name} walks through ${share.name} as ${seenAs}`,
      seconds: 1 + Number(share.usedBytes) / usualFileBytes / filesASecond,
      step: {
        step: 'walk',
        systemId: share.systemId,
        shareId: share.id,
        hostName: host.name,
        agentAddress: host.agentAddress,
        server: service.name,
        exported: isBySmb ? `//${share.name}` : share.path,
        as: isBySmb ? { account: person.account } : { uid: is.uid, gid: is.gid, groups: is.groups },
        seenAs,
      },
    },
  ]
}

/** Mounts the share for as long as something is done. */
async function mounted<T>(walk: Walk, ports: ChangePorts, act: () => Promise<T>): Promise<T> {
  const agent = await ports.host(walk.agentAddress)
  const refused = await agent.shares.mount(walk.server, walk.exported, mountedAt(walk))
  if (refused !== undefined) throw new WalkEnded(walk.hostName, `The server refuses it: ${refused}.`)
  try {
    return await act()
  } finally {
    await agent.unmount(mountedAt(walk))
  }
}

async function prove(walk: Step, ports: ChangePorts): Promise<Evidence[]> {
  // What is kept of its system may be older than the walk.
  await ports.records.collect(walk.systemId)
  const scan = await ports.records.fileScans.latest(walk.shareId)
  const report = scan?.report
  const estate = await ports.estate()
  const used = byId(estate.shares, walk.shareId)?.usedBytes ?? 0n
  const evidence: Evidence[] = [
    {
      claim: 'What was found is no more than its system says is used',
      holds: report !== undefined && BigInt(Math.round(report.bytes)) <= used,
      measured: { found: `${report?.bytes ?? 0}`, files: `${report?.files ?? 0}`, used: `${used}` },
    },
  ]
  const largest = report?.largest[0]
  if (largest === undefined) return evidence
  const path = largest.path.slice(1)
  const again = await mounted(walk, ports, async () =>
    (await ports.host(walk.agentAddress)).shares.list(mountedAt(walk), walk.as, path.slice(0, -1)),
  )
  const found = 'files' in again ? again.files.find(each => each.path === path) : undefined
  evidence.push({
    claim: 'Its largest file is found again as it was told',
    holds: found !== undefined && (found.bytes === largest.bytes || found.modifiedAt > largest.modifiedAt + 1000),
    measured: {
      path: largest.path,
      before: `${largest.bytes}`,
      again: found === undefined ? 'gone' : `${found.bytes}`,
    },
  })
  return evidence
}

export const reportFiles: ChangeKind<Intent, Step> = {
  ...reportFilesIntent,
  needs: ({ shareId, personId = '' }) => [
    one('shares', shareId),
    ...(personId === '' ? [] : [one('principals', personId), those('principals', 'sort', 'group')]),
  ],
  plan,
  runStep: async (step, { key }, ports) => ({ scanId: await mounted(step, ports, () => walked(step, key, ports)) }),
  async undoStep(_step, { key }, ports) {
    await ports.records.fileScans.drop(key)
    return undefined
  },
  prove: (_intent, made, facts, ports) => {
    fact(facts, 'scanId')
    return prove(firstStep(made), ports)
  },
  collects: () => [],
  reverse: () => undefined,
}
