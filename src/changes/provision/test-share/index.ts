import { byId, hasAgent, one, those, type Estate } from '@/core/estate'
import { exportTable, mayBySmb, mayFile } from '@/core/access'
import { testShareIntent, type TestShareIntent as Intent } from '@/core/intents'
import type { Plan } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { hops } from '../../parts/files/hops'
import { overOf } from '../../parts/files/shareChecks'
import { rightsOf, triedFrom, triedShare } from '../../parts/files/shareTrials'
import { triedBySmb } from '../../parts/files/smbTrials'
import { triedAs } from '../../parts/files/triedAs'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'try'; shareId: string; systemId: string }>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const host = look.one('hosts', intent.hostId)
  const tried = triedAs(estate, intent)
  look.at('principals', tried.person === undefined ? [] : [tried.person])
  const { uid, gid, groups } = tried.is
  const isSmb = share !== undefined && tried.person !== undefined && overOf(share.protocols).isSmb
  const request = {
    clientAddress: host?.addresses[0] ?? '',
    clientName: null,
    uid,
    gid,
    groups,
    flavour: 'sys' as const,
    operation: 'write' as const,
  }
  const answer =
    share === undefined
      ? undefined
      : isSmb
        ? mayBySmb(share.grants, tried.is, 'write', rightsOf(share).root)
        : mayFile(exportTable(share.rules), request, rightsOf(share).root)
  return outlined<Step>(estate, {
    title: `Try ${share?.name ?? 'a share'} as ${tried.person?.name ?? `uid ${uid}`} from ${host?.name ?? 'a host'}`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      ...(intent.personId === undefined || intent.personId === ''
        ? []
        : [
            there(
              'person',
              tried.person,
              each => `${each.name} is in the directory.`,
              'That person is in no directory.',
              {
                field: 'personId',
              },
            ),
          ]),
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
      'The host looks its name up, gets through to it, mounts it, writes as that identity and reads the same back; what is refused must be what the rights say.',
  })
}

export const testShare: ChangeKind<Intent, Step> = {
  ...testShareIntent,
  needs: ({ shareId, personId = '' }) => [
    one('shares', shareId),
    ...(personId === '' ? [] : [one('principals', personId), those('principals', 'sort', 'group')]),
  ],
  plan,
  // What it is tried on is read anew: who answers at its addresses may have changed.
  runStep: async ({ shareId, systemId }) => ({ shareId, systemId }),
  undoStep: async () => undefined,
  async prove(intent, _plan, _facts, ports) {
    const { shareId, hostId, isRestarted } = intent
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
    const { person, is } = triedAs(estate, intent)
    const { isNfs, isSmb } = overOf(share.protocols)
    const { uid, gid, groups } = is
    const stated = triedShare(share, service)
    const way = await hops(ports, host, service, isNfs ? 'NFS' : 'SMB')
    if (way.some(({ holds }) => !holds)) return way
    return [
      ...way,
      ...(isNfs ? await triedFrom(ports, stated, host, [{ uid, gid, groups }], isRestarted) : []),
      ...(isSmb && person !== undefined
        ? await triedBySmb(ports, stated, host, [{ account: person.account, is }])
        : []),
    ]
  },
  collects: (_intent, _estate, facts) => (facts['systemId'] === undefined ? [] : [facts['systemId']]),
  reverse: () => undefined,
}
