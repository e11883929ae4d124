import { registerHostIntent, type RegisterHostIntent as Intent } from '@/core/intents'
import { byId, nameCheck, type Estate } from '@/core/estate'
import type { Plan, PlanCheck, Effect } from '@/core/plan'
import type { ChangeKind } from '../../ChangeKind'
import { absent, advise, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'enrol'; agentAddress: string; groupName: string; siteId?: string; secretId?: string }>

const blankToNull = (id: string | undefined) => (id === undefined || id === '' ? null : id)

const secretOf = ({ secretId = '' }: { readonly secretId?: string }) => (secretId === '' ? undefined : secretId)

const isAddress = (text: string) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const known = estate.hosts.find(host => host.agentAddress === intent.agentAddress)
  const group = estate.hostGroups.find(each => each.name === intent.groupName)
  return { estate, group, intent, known }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)

  return outlined<Step>(estate, {
    title: `Register the host at ${intent.agentAddress}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [],
    undo: { possible: false, how: 'Nothing is changed on the host.' },
    steps: stepsOf(seen),
    reads: [],
    claims: [`host:${intent.agentAddress}`],
    proof: 'The agent is asked for its initiators again.',
  })
}

function checksOf({ estate, group, intent, known }: Seen): readonly PlanCheck[] {
  return [
    rule(
      'address',
      isAddress(intent.agentAddress),
      'The address can be asked.',
      "Give the address of the host's agent, such as http://10.0.0.5:4300.",
      { field: 'agentAddress' },
    ),
    ...(secretOf(intent) === undefined || !isAddress(intent.agentAddress)
      ? []
      : [
          advise(
            'sealed-way',
            new URL(intent.agentAddress).protocol === 'https:',
            'Its credential goes to it over an encrypted connection.',
            'Its credential goes to it in the clear: whoever reads the network between can use it.',
            { field: 'agentAddress', remedy: 'Give an address that begins with https:// where there is one.' },
          ),
        ]),
    rule(
      'site',
      blankToNull(intent.siteId) === null || byId(estate.sites, intent.siteId) !== undefined,
      'Where it stands is known, or left open.',
      'The site is not there any more.',
      { field: 'siteId' },
    ),
    absent('new', known, 'It is not registered yet.', known => `It is registered already, as ${known.name}.`, {
      field: 'agentAddress',
    }),
    { ...nameCheck(intent.groupName, 'the host group'), field: 'groupName' },
    advise(
      'group-known',
      group !== undefined,
      `It joins ${intent.groupName}.`,
      `The host group ${intent.groupName} is new.`,
      { field: 'groupName' },
    ),
  ]
}

function effectsOf({ estate }: Seen): readonly Effect[] {
  return [
    {
      figure: 'hosts',
      label: 'Hosts in the estate',
      unit: 'count',
      before: estate.hosts.length,
      after: estate.hosts.length + 1,
    },
  ]
}

function stepsOf({ intent }: Seen): Outlined<Step>[] {
  return [
    {
      words: 'Ask the host who it is and take it into the estate',
      seconds: 0.09,
      step: { step: 'enrol', ...intent },
    },
  ]
}

export const registerHost: ChangeKind<Intent, Step> = {
  ...registerHostIntent,
  needs: () => [],
  plan,
  async runStep(step, { key }, ports) {
    const secretId = secretOf(step)
    const identity = await (await ports.host(step.agentAddress, secretId)).identity()
    return {
      hostId: await ports.records.enrolHost(
        {
          ...{ ...identity, agentAddress: step.agentAddress, groupName: step.groupName },
          ...{ siteId: blankToNull(step.siteId), secretId: secretId ?? null },
        },
        key,
      ),
    }
  },
  undoStep: async () => undefined,
  async prove(intent, _plan, facts, ports) {
    const identity = await (await ports.host(intent.agentAddress)).identity()
    const kept = (await ports.estate()).hosts.find(host => host.id === facts['hostId'])
    return [
      {
        claim: "The records hold the host's own initiators",
        holds: kept !== undefined && JSON.stringify(kept.initiators) === JSON.stringify(identity.initiators),
        measured: { stated: identity.initiators.join(', '), kept: kept?.initiators.join(', ') ?? '' },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
