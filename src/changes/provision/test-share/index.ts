import { byId, hasAgent, one, those, type Estate, type Host as EstateHost, type Share } from '@/core/estate'
import { askingFrom, exportTable, mayBySmb, mayFile, type Sender } from '@/core/access'
import { testShareIntent, type TestShareIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { hops } from '../../parts/files/hops'
import { overOf } from '../../parts/files/shareChecks'
import { namedHosts, rightsOf, senderOf, triedFrom, triedShare } from '../../parts/files/shareTrials'
import { triedBySmb } from '../../parts/files/smbTrials'
import { triedAs } from '../../parts/files/triedAs'
import { itsSystem } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'try'; shareId: string; systemId: string }>

type Tried = ReturnType<typeof triedAs>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const share = look.one('shares', intent.shareId)
  const host = look.one('hosts', intent.hostId)
  const tried = triedAs(estate, intent)
  look.at('principals', tried.person === undefined ? [] : [tried.person])
  return outlined<Step>(estate, {
    title: `Try ${share?.name ?? 'a share'} as ${tried.person?.name ?? `uid ${tried.is.uid}`} from ${host?.name ?? 'a host'}`,
    checks: [
      there('share', share, each => `${each.name} is there.`, 'Choose a share.'),
      ...personChecks(intent, tried),
      ...hostChecks(intent, host),
    ],
    effects: share === undefined ? [] : [expected(share, senderOf(estate, host), tried)],
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

const personChecks = ({ personId = '' }: Intent, { person }: Tried): PlanCheck[] =>
  personId === ''
    ? []
    : [
        there('person', person, each => `${each.name} is in the directory.`, 'That person is in no directory.', {
          field: 'personId',
        }),
      ]

const hostChecks = ({ isRestarted }: Intent, host: EstateHost | undefined): PlanCheck[] => [
  there('host', host, each => `${each.name} tries it.`, 'Choose a host.', { field: 'hostId' }),
  ...(host === undefined
    ? []
    : [
        rule('asked', hasAgent(host), `${host.name} can be asked.`, `${host.name} has no agent that could try it.`, {
          field: 'hostId',
        }),
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
    !isRestarted,
    'The host is not restarted.',
    'The host restarts: what runs on it is interrupted for a minute or more.',
    { field: 'isRestarted' },
  ),
]

/** What the rights say of a write, before anybody has tried. */
function expected(share: Share, from: Sender, { person, is }: Tried): Effect {
  const { root } = rightsOf(share)
  const { uid, gid, groups } = is
  const answer =
    person !== undefined && overOf(share.protocols).isSmb
      ? mayBySmb(share.grants, is, 'write', root)
      : mayFile(
          exportTable(share.rules),
          {
            ...askingFrom(from),
            ...{ uid, gid, groups, flavour: 'sys', operation: 'write' },
          },
          root,
        )
  return {
    figure: 'expected',
    label: 'A write',
    unit: 'words',
    before: null,
    after: answer.allowed ? 'will be let through' : `will be refused by ${answer.decidedBy}`,
  }
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
    const host = namedHosts(estate).find(({ id }) => id === hostId)
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
  collects: itsSystem,
  reverse: () => undefined,
}
