import { those, type Estate } from '@/core/estate'
import { readHostLines, type HostLineAsked } from '@/core/hosts'
import { registerHostsIntent, type RegisterHostsIntent as Intent } from '@/core/intents'
import type { Effect, Plan, PlanCheck } from '@/core/plan'
import { countAtStart, countWords } from '@/core/units'
import type { ChangeKind } from '../../ChangeKind'
import { advise, rule } from '../../parts/checks'
import { outlined, type Outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'enrol'; hosts: readonly Omit<HostLineAsked, 'line'>[] }>

/** Hosts that one step takes in: it gives its place back between such steps, and can be stopped there. */
const inOneStep = 500
const shownTroubles = 5

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const read = readHostLines(intent.list)
  const groups = new Set(estate.hostGroups.map(({ name }) => name))
  const joined = [...new Set(read.hosts.map(({ groupName }) => groupName))]
  return {
    estate,
    read,
    newGroups: joined.filter(name => !groups.has(name)),
    oldGroups: estate.hostGroups.filter(({ name }) => joined.includes(name)),
  }
}
type Seen = ReturnType<typeof see>

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { hosts } = seen.read
  return outlined<Step>(estate, {
    title: `Register ${countWords(hosts.length, 'host', 'hosts')}`,
    checks: checksOf(seen),
    effects: effectsOf(seen),
    oneWay: [],
    undo: { possible: true, how: 'Each can be taken out again, for as long as it sees no volume.' },
    steps: stepsOf(hosts),
    reads: [],
    claims: hosts.map(({ name }) => `host:${name}`),
    proof: 'The records are read again, with every name by which a host logs in.',
  })
}

/** The first few of what is wrong, in one sentence each. */
const firstOf = (troubles: readonly string[]) =>
  [
    ...troubles.slice(0, shownTroubles),
    ...(troubles.length > shownTroubles ? [`And ${(troubles.length - shownTroubles).toLocaleString('en')} more.`] : []),
  ].join(' ')

/** Lines that name what the estate has already. */
function knownAlready({ estate, read }: Seen): readonly string[] {
  const byName = new Set(estate.hosts.map(({ name }) => name))
  const byInitiator = new Map(estate.hosts.flatMap(host => host.initiators.map(each => [each, host.name] as const)))
  return read.hosts.flatMap(({ line, name, initiators }) => {
    if (byName.has(name)) return [`Line ${line}: ${name} is registered already.`]
    const taken = initiators.find(each => byInitiator.has(each))
    return taken === undefined ? [] : [`Line ${line}: ${taken} is ${byInitiator.get(taken)}.`]
  })
}

function checksOf(seen: Seen): readonly PlanCheck[] {
  const { estate, newGroups, oldGroups, read } = seen
  const unread = read.troubles.map(({ line, why }) => `Line ${line}: ${why}`)
  const known = knownAlready(seen)
  const shown = estate.mappings.filter(({ hostGroupId }) => oldGroups.some(({ id }) => id === hostGroupId))
  const showing = oldGroups.filter(({ id }) => shown.some(({ hostGroupId }) => hostGroupId === id))
  return [
    rule(
      'lines',
      read.hosts.length > 0 && unread.length === 0,
      `${countAtStart(read.hosts.length, 'host is', 'hosts are')} read.`,
      unread.length === 0 ? 'Give a line for each host.' : firstOf(unread),
      { field: 'list' },
    ),
    rule('new', known.length === 0, 'None of them is registered yet.', firstOf(known), { field: 'list' }),
    advise(
      'groups',
      newGroups.length === 0,
      'All of their groups are there.',
      `${countAtStart(newGroups.length, 'host group is', 'host groups are')} new: ${firstNames(newGroups)}.`,
      { field: 'list' },
    ),
    advise(
      'see',
      showing.length === 0,
      'None of their groups sees a volume yet.',
      `${firstNames(showing.map(({ name }) => name))} see volumes already: systems let those who join log in once a volume is mapped to the group anew.`,
      { field: 'list' },
    ),
  ]
}

const firstNames = (names: readonly string[]) =>
  `${names.slice(0, shownTroubles).join(', ')}${names.length > shownTroubles ? ' and others' : ''}`

const effectsOf = ({ estate, newGroups, read }: Seen): readonly Effect[] => [
  {
    figure: 'hosts',
    label: 'Hosts in the estate',
    unit: 'count',
    before: estate.hosts.length,
    after: estate.hosts.length + read.hosts.length,
  },
  {
    figure: 'hostGroups',
    label: 'Host groups',
    unit: 'count',
    before: estate.hostGroups.length,
    after: estate.hostGroups.length + newGroups.length,
  },
]

function stepsOf(hosts: readonly HostLineAsked[]): Outlined<Step>[] {
  const steps: Outlined<Step>[] = []
  for (let from = 0; from < hosts.length; from += inOneStep) {
    const part = hosts.slice(from, from + inOneStep)
    const [first, last] = [part[0], part.at(-1)]
    steps.push({
      words: `Take in ${first?.name ?? ''}${part.length > 1 ? ` to ${last?.name ?? ''}` : ''}`,
      seconds: 0.05 + part.length * 0.001,
      step: {
        step: 'enrol',
        hosts: part.map(({ name, groupName, initiators, addresses }) => ({ name, groupName, initiators, addresses })),
      },
    })
  }
  return steps
}

export const registerHosts: ChangeKind<Intent, Step> = {
  ...registerHostsIntent,
  needs: () => [],
  needsAlso: ({ hostGroups }, { list }) => {
    const joined = new Set(readHostLines(list).hosts.map(({ groupName }) => groupName))
    const ids = hostGroups.filter(({ name }) => joined.has(name)).map(({ id }) => id)
    return [those('mappings', 'hostGroupId', ...ids)]
  },
  plan,
  async runStep({ hosts }, { key }, ports) {
    await ports.records.enrolHosts(hosts, key)
    return {}
  },
  async undoStep(_step, { key }, ports) {
    await ports.records.dropHosts({ enrolledBy: key })
    return undefined
  },
  async prove(_intent, made, _facts, ports) {
    const kept = new Map((await ports.estate()).hosts.map(host => [host.name, host.initiators.join(' ')]))
    const asked = made.steps.flatMap(({ step }) => step.hosts)
    const differ = asked.filter(({ name, initiators }) => kept.get(name) !== initiators.join(' '))
    return [
      {
        claim: 'The records hold every host with all names by which it logs in',
        holds: asked.length > 0 && differ.length === 0,
        measured: {
          kept: `${asked.length - differ.length} of ${asked.length}`,
          differ: firstNames(differ.map(({ name }) => name)) || 'none',
        },
      },
    ]
  },
  collects: () => [],
  reverse: () => undefined,
}
