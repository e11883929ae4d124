import { byId, hasAgent, one, type Estate } from '@/core/estate'
import { exportTable, mayFile } from '@/core/access'
import { testShareIntent, type TestShareIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { rightsOf, triedFrom, triedShare } from '../../parts/files/shareTrials'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'try'; shareId: string; systemId: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const host = look.one('hosts', intent.hostId)
  const { uid, gid, groups } = intent
  const request = {
    clientAddress: host?.addresses[0] ?? '',
    clientName: null,
    uid,
    gid,
    groups,
    flavour: 'sys' as const,
    operation: 'write' as const,
  }
  const answer = share === undefined ? undefined : mayFile(exportTable(share.rules), request, rightsOf(share).root)
  return outlined<Step>(estate, {
    title: `Try ${share?.name ?? 'a share'} as uid ${uid} from ${host?.name ?? 'a host'}`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      there('host', host, each => `${each.name} tries it.`, 'Choose a host.', { field: 'hostId' }),
      ...(host === undefined
        ? []
        : [
            rule(
              'asked',
              hasAgent(host),
              `${host.name} can be asked.`,
              `${host.name} has no agent that could try it.`,
              { field: 'hostId' },
            ),
            rule(
              'address',
              host.addresses.length > 0,
              `It asks from ${host.addresses.join(', ')}.`,
              `By which address ${host.name} is known on the network is not known.`,
              { field: 'hostId', remedy: 'Take it out and register it again: it says so then.' },
            ),
          ]),
      advise(
        'restart',
        !intent.isRestarted,
        'The host is not restarted.',
        'The host restarts: what runs on it is interrupted for a minute or more.',
        { field: 'isRestarted' },
      ),
    ],
    effects:
      answer === undefined
        ? []
        : [
            {
              figure: 'expected',
              label: 'A write',
              unit: 'words',
              before: null,
              after: answer.allowed ? 'will be let through' : `will be refused by ${answer.decidedBy}`,
            },
          ],
    undo: { possible: true, how: 'Nothing is changed but a file that is taken away again.' },
    steps:
      share === undefined
        ? []
        : [
            {
              words: `${host?.name ?? 'The host'} tries it`,
              seconds: 0.1,
              step: { step: 'try', shareId: share.id, systemId: share.systemId },
            },
          ],
    reads: look.reads,
    claims: share === undefined ? [] : [share.id],
    proof:
      'The host mounts it, writes as that identity and reads the same back; what is refused must be what the rights say.',
  })
}

export const testShare: ChangeKind<Intent, Step> = {
  ...testShareIntent,
  needs: ({ shareId }) => [one('shares', shareId)],
  plan,
  // What it is tried on is read anew: who answers at its addresses may have changed.
  runStep: async ({ shareId, systemId }) => ({ shareId, systemId }),
  undoStep: async () => undefined,
  async prove({ shareId, hostId, uid, gid, groups, isRestarted }, _plan, _facts, ports) {
    const estate = await ports.estate()
    const share = byId(estate.shares, shareId)
    const service = byId(estate.fileServices, share?.fileServiceId)
    const host = estate.hosts.filter(hasAgent).find(({ id }) => id === hostId)
    if (share === undefined || service === undefined || host === undefined)
      return [
        {
          claim: 'The share and the host are there',
          holds: false,
          measured: { share: share?.name ?? 'gone', host: host?.name ?? 'gone' },
        },
      ]
    return triedFrom(ports, triedShare(share, service), host, [{ uid, gid, groups }], isRestarted)
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: () => undefined,
}
