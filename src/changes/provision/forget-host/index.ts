import { byId, those, type Estate, type Host, type HostGroup } from '@/core/estate'
import { forgetHostIntent, type ForgetHostIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'forget'; hostId: string }>

function checksOf(estate: Estate, host: Host | undefined, group: HostGroup | undefined): readonly PlanCheck[] {
  const seen = estate.mappings.filter(each => group !== undefined && each.hostGroupId === group.id)
  // A system keeps its name in a group there: nothing is shown to it by that, but nobody would know whose it is.
  const letIn = estate.systems.filter(({ accessGroups }) =>
    accessGroups.some(each => each.initiators.some(name => host?.initiators.includes(name) === true)),
  )
  return [
    there('host', host, each => `${each.name} is registered.`, 'Choose the host.', { field: 'hostId' }),
    rule(
      'unseen',
      seen.length === 0,
      'It sees no volume.',
      `${group?.name ?? 'Its group'} sees ${seen.length} ${seen.length === 1 ? 'volume or snapshot' : 'volumes or snapshots'}: unmap them first.`,
    ),
    advise(
      'not-let-in',
      letIn.length === 0,
      'No system lets it log in.',
      `${letIn.map(({ name }) => name).join(', ')} keeps the name by which it logs in, and nobody will know whose it is.`,
    ),
  ]
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const host = look.one('hosts', intent.hostId)
  const group = look.one('hostGroups', host?.hostGroupId)
  return outlined<Step>(estate, {
    title: `Take ${host?.name ?? 'a host'} out of the estate`,
    checks: checksOf(estate, host, group),
    effects: [
      {
        figure: 'hosts',
        label: 'Hosts in the estate',
        unit: 'count',
        before: estate.hosts.length,
        after: estate.hosts.length - (host === undefined ? 0 : 1),
      },
    ],
    undo: { possible: false, how: 'It can be registered again.' },
    steps:
      host === undefined
        ? []
        : [{ words: `Take ${host.name} out`, seconds: 0.05, step: { step: 'forget', hostId: host.id } }],
    reads: look.reads,
    claims: host === undefined ? [] : [host.id],
    proof: 'The records are read again.',
  })
}

export const forgetHost: ChangeKind<Intent, Step> = {
  ...forgetHostIntent,
  needs: () => [],
  needsAlso: ({ hosts }, { hostId }) => [those('mappings', 'hostGroupId', byId(hosts, hostId)?.hostGroupId)],
  plan,
  async runStep({ hostId }, _context, ports) {
    await ports.records.dropHosts({ id: hostId })
    return {}
  },
  undoStep: async () => 'The host is out of the estate: it can be registered again.',
  async prove({ hostId }, _plan, _facts, ports) {
    const found = byId((await ports.estate()).hosts, hostId)
    return [
      {
        claim: 'The records hold the host no longer',
        holds: found === undefined,
        measured: { kept: found?.name ?? 'nothing' },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
