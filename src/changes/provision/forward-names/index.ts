import { byId, hasAgent, type Estate, type FileService } from '@/core/estate'
import { forwardNamesIntent, type ForwardNamesIntent as Intent } from '@/core/intents'
import { domainTrouble, isWithin, serverTrouble } from '@/core/network'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangeKind, Evidence } from '../../ChangeKind'
import { advise, rule, there } from '../../parts/checks'
import { firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'

type Step = Readonly<{ step: 'forward'; agentAddress: string; domain: string; server: string }>

/** File services whose names lie within a domain: what the change is for, and what proves it. */
const thoseWithin = (domain: string, all: readonly FileService[]) => all.filter(({ name }) => isWithin(name, domain))

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const host = look.one('hosts', intent.hostId)
  const domain = intent.domain.trim().toLowerCase().replace(/\.$/, '')
  const server = intent.server.trim()
  const within = thoseWithin(domain, estate.fileServices)
  look.at('fileServices', within)
  return { look, host, domain, server, within, to: server === '' ? 'its usual server' : server }
}

function checksOf({ host, domain, server, within, to }: ReturnType<typeof see>): PlanCheck[] {
  const noDomain = domainTrouble(domain)
  const noServer = server === '' ? undefined : serverTrouble(server)
  return [
    there('host', host, each => `${each.name} is registered.`, 'Choose the host.'),
    rule(
      'asked',
      host === undefined || hasAgent(host),
      'Its agent sets it.',
      'It has no agent that could set it: set it on the host yourself.',
    ),
    rule('domain', noDomain === undefined, `${domain} is a domain.`, noDomain ?? '', { field: 'domain' }),
    rule('server', noServer === undefined, `It asks ${to}.`, noServer ?? '', { field: 'server' }),
    advise(
      'narrow',
      domain.includes('.'),
      'Other names are asked for as before.',
      'Every name below this top of the tree is asked there; give a longer domain.',
      { field: 'domain' },
    ),
    advise(
      'used',
      within.length > 0,
      `${within.map(({ name }) => name).join(', ')} ${within.length === 1 ? 'lies' : 'lie'} within.`,
      'No file service of the estate has a name within: what it leads to cannot be proven.',
      { field: 'domain' },
    ),
  ]
}

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { look, host, domain, server, to } = seen
  return outlined<Step>(estate, {
    title: `Have ${host?.name ?? 'a host'} ask ${to} for ${domain === '' ? 'names' : domain}`,
    checks: checksOf(seen),
    effects: [{ figure: 'forward', label: `Who is asked for ${domain}`, unit: 'words', before: null, after: to }],
    undo: { possible: true, how: 'Whom it asked before is asked again.' },
    steps:
      host === undefined || !hasAgent(host)
        ? []
        : [
            {
              words: `${host.name} asks ${to} for ${domain}`,
              seconds: 0.2,
              step: { step: 'forward', agentAddress: host.agentAddress, domain, server },
            },
          ],
    reads: look.reads,
    claims: host === undefined ? [] : [host.id],
    proof: 'The host says whom it asks, looks up each file service within, and gets through to where it is led.',
  })
}

export const forwardNames: ChangeKind<Intent, Step> = {
  ...forwardNamesIntent,
  needs: () => [],
  plan,
  async runStep({ agentAddress, domain, server }, { facts }, ports) {
    const { network } = await ports.host(agentAddress)
    const was =
      facts['before'] ?? (await network.resolver()).forwards.find(each => each.domain === domain)?.server ?? ''
    await ports.keep({ before: was })
    await network.setForward(domain, server)
    return { before: was }
  },
  async undoStep({ agentAddress, domain }, { facts }, ports) {
    if (facts['before'] === undefined) return undefined
    await (await ports.host(agentAddress)).network.setForward(domain, facts['before'])
    return undefined
  },
  async prove({ hostId }, made, _facts, ports) {
    const { agentAddress, domain, server } = firstStep(made)
    const estate = await ports.estate()
    const name = byId(estate.hosts, hostId)?.name ?? 'The host'
    const { network } = await ports.host(agentAddress)
    const stated = (await network.resolver()).forwards.find(each => each.domain === domain)?.server ?? ''
    const evidence: Evidence[] = [
      {
        claim: `${name} says whom it asks for ${domain}`,
        holds: stated === server,
        measured: { asks: stated === '' ? 'its usual server' : stated },
      },
    ]
    // Where it is asked as before again, where names lead is no affair of this change.
    if (server === '') return evidence
    for (const service of thoseWithin(domain, estate.fileServices)) {
      const way = await network.way(service.name)
      const isOurs = service.instances.some(({ address }) => address === way.address)
      evidence.push({
        claim: `${name} is led to ${service.name} by ${server}, and gets through`,
        holds: way.name.server === server && isOurs && way.ports.some(({ isOpen }) => isOpen),
        measured: {
          asked: way.name.server ?? 'nobody',
          ledTo: way.address ?? 'nowhere',
          open: way.ports.flatMap(({ port, isOpen }) => (isOpen ? [port] : [])).join(', ') || 'nothing',
        },
      })
    }
    return evidence
  },
  collects: () => [],
  reverse: ({ hostId, domain }, facts) => ({
    kind: 'forward-names',
    intent: { hostId, domain, server: facts['before'] ?? '' },
  }),
}
