import { canBeAsked, type Estate, type Host, type System } from '@/core/estate'
import type { SetHostSignInIntent as Intent } from '@/core/intents'
import type { Plan, PlanCheck } from '@/core/plan'
import type { HostSignIn } from '@/ports'
import { advise, answers, rule, there } from '../../parts/checks'
import { lookInto } from '../../parts/look'
import { outlined, type Outlined } from '../../parts/outline'
import { namesOverIp } from '../../parts/signIn'

export type Step = Readonly<
  { hostId: string; to: HostSignIn } & (
    | { step: 'host'; agentAddress: string }
    | { step: 'system'; systemId: string; initiators: readonly string[] }
    | { step: 'records' }
  )
>

const words = { nothing: 'nobody', 'one-way': 'the host', mutual: 'the host and its systems' } as const
/** Systems that let it log in, with the names by which they know it. */
const lettingIn = (estate: Estate, names: readonly string[]) =>
  estate.systems.flatMap(system => {
    const known = new Set(system.accessGroups.flatMap(({ initiators }) => initiators))
    const own = names.filter(name => known.has(name))
    return own.length === 0 ? [] : [{ system, initiators: own }]
  })

export function plan(estate: Estate, intent: Intent): Plan<Step> {
  const look = lookInto(estate)
  const host = look.one('hosts', intent.hostId)
  const names = host === undefined ? [] : namesOverIp(host)
  const systems = lettingIn(estate, names)
  look.at(
    'systems',
    systems.map(({ system }) => system),
  )
  const { signIn } = intent
  return outlined<Step>(estate, {
    title:
      signIn === 'nothing'
        ? `Ask nothing of ${host?.name ?? 'a host'} where it logs in`
        : `Have ${host?.name ?? 'a host'}${signIn === 'mutual' ? ' and its systems' : ''} prove itself by CHAP`.replace(
            'systems prove itself',
            'systems prove themselves',
          ),
    checks: checksOf(intent, host, names, systems),
    effects: [
      {
        figure: 'signIn',
        label: 'Who proves itself where it logs in',
        unit: 'words',
        before: host === undefined ? null : words[host.signIn],
        after: words[signIn],
      },
      { figure: 'systems', label: 'Systems that ask for it', unit: 'count', before: null, after: systems.length },
    ],
    undo: { possible: true, how: 'What was asked for before is set again.' },
    steps: host === undefined ? [] : stepsOf(intent, host, systems),
    reads: look.reads,
    claims: host === undefined ? [] : [host.id],
    proof:
      signIn === 'nothing'
        ? 'Each system is asked for it, and the host logs in without a secret.'
        : 'Each system is asked for it; the host logs in with its secret, and is refused with another.',
  })
}

const hostChecks = (
  host: Host,
  names: readonly string[],
  systems: readonly { readonly system: System }[],
): PlanCheck[] => [
  rule(
    'over-ip',
    names.length > 0,
    `It logs in as ${names.join(', ')}.`,
    'It has no name by which it logs in over iSCSI, and CHAP is spoken nowhere else.',
  ),
  rule(
    'let-in',
    systems.length > 0,
    `${systems.map(({ system }) => system.name).join(', ')} lets it log in.`,
    'No system lets it log in yet.',
    { remedy: 'Map a volume to its group first.' },
  ),
  advise(
    'agent',
    canBeAsked(host),
    'Its agent sets it on the host too.',
    'It has no agent: set the same secret on the host yourself, or it will not be let in again. What no agent tries is not proven.',
  ),
]

function checksOf(
  { signIn, secretId, systemSecretId }: Intent,
  host: Host | undefined,
  names: readonly string[],
  systems: readonly { readonly system: System }[],
): PlanCheck[] {
  return [
    there('host', host, each => `${each.name} is registered.`, 'Choose the host.'),
    ...(host === undefined ? [] : hostChecks(host, names, systems)),
    ...systems.map(({ system }) => answers(system)),
    rule(
      'secret',
      signIn === 'nothing' || secretId !== '',
      signIn === 'nothing' ? 'Nothing is asked for.' : 'Its secret is kept, sealed.',
      'Give the secret by which it proves itself.',
      { field: 'secretId' },
    ),
    rule(
      'system-secret',
      signIn !== 'mutual' || (systemSecretId !== '' && systemSecretId !== secretId),
      signIn === 'mutual' ? 'The secret of its systems is another.' : 'Systems need not prove themselves.',
      'Give another secret, by which its systems prove themselves.',
      { field: 'systemSecretId' },
    ),
  ]
}

/** The host learns its secret before it is asked for it, and keeps it until nobody asks any more. */
function stepsOf(
  { signIn, secretId, systemSecretId }: Intent,
  host: Host,
  systems: readonly { readonly system: System; readonly initiators: readonly string[] }[],
): Outlined<Step>[] {
  const to: HostSignIn = {
    signIn,
    secretId: signIn === 'nothing' ? null : secretId,
    systemSecretId: signIn === 'mutual' ? systemSecretId : null,
  }
  const onHost: Outlined<Step>[] = canBeAsked(host)
    ? [
        {
          words: signIn === 'nothing' ? `${host.name} forgets its secret` : `${host.name} learns its secret`,
          seconds: 0.2,
          step: { step: 'host', hostId: host.id, agentAddress: host.agentAddress, to },
        },
      ]
    : []
  const onSystems = systems.map(
    ({ system, initiators }): Outlined<Step> => ({
      words: signIn === 'nothing' ? `${system.name} asks it for nothing` : `${system.name} asks it for its secret`,
      seconds: 0.4 * initiators.length,
      step: { step: 'system', hostId: host.id, systemId: system.id, initiators, to },
    }),
  )
  const first = signIn === 'nothing' ? [...onSystems, ...onHost] : [...onHost, ...onSystems]
  return [...first, { words: 'Keep it with the host', seconds: 0.05, step: { step: 'records', hostId: host.id, to } }]
}
