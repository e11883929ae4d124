import { hasAgent, those, type Estate } from '@/core/estate'
import { serveFilesIntent, type ServeFilesIntent as Intent } from '@/core/intents'
import type { Effect, Plan } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { reaching } from '../../parts/files/reaching'
import { fact, firstStep } from '../../parts/known'
import { outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'
import { checksOf, listed, see } from './checks'

type Step = Readonly<{
  step: 'start'
  systemId: string
  name: string
  nameServers: readonly string[]
  searchSuffixes: readonly string[]
  instances: readonly { readonly unit: string; readonly address: string; readonly prefixLength: number }[]
}>

/** To unpack and start it on one unit. */
const startSeconds = 8

function plan(estate: Estate, intent: Intent): Plan<Step> {
  const seen = see(estate, intent)
  const { addresses = [], first, look, name, system, units } = seen
  const instances = units.map((unit, index) => ({
    unit,
    address: addresses[index] ?? '',
    prefixLength: first?.prefixLength ?? 0,
  }))
  return outlined<Step>(estate, {
    title: `Serve files${system === undefined ? '' : ` from ${system.name}`}${name === '' ? '' : ` as ${name}`}`,
    checks: checksOf(seen),
    effects: effectsOf(instances),
    undo: { possible: true, how: 'It can be removed while it serves no share.' },
    steps:
      system === undefined
        ? []
        : [
            {
              words: `Start ${name} on ${units.length} ${units.length === 1 ? 'unit' : 'units'}, one after another`,
              seconds: startSeconds * units.length,
              step: {
                step: 'start',
                systemId: system.id,
                name,
                nameServers: listed(intent.nameServers),
                searchSuffixes: listed(intent.searchSuffixes),
                instances,
              },
            },
          ],
    reads: look.reads,
    claims: [`files:${system?.id ?? ''}/${name}`],
    proof: 'The system is asked for each instance, and a host looks its name up and asks each address.',
  })
}

const effectsOf = (instances: Step['instances']): readonly Effect[] => [
  {
    figure: 'instances',
    label: 'Answers at',
    unit: 'words',
    before: null,
    after: instances.map(each => `${each.address} on ${each.unit}`).join(', ') || 'nothing',
  },
  {
    figure: 'withoutOne',
    label: 'When one of them goes',
    unit: 'words',
    before: null,
    after:
      instances.length < 2
        ? 'nothing answers until it is back'
        : 'another answers at its address; hosts wait for that long',
  },
]

/** A host looks up the name, and asks each address: the system's own word would be no proof. */
async function prove(step: Step, facts: Facts, ports: ChangePorts): Promise<Evidence[]> {
  const seen = await (await ports.of(step.systemId, 'fileServices')).at(fact(facts, 'locator'))
  const evidence: Evidence[] = step.instances.map(({ unit, address }) => {
    const found = seen?.instances.find(each => each.address === address)
    return {
      claim: `${unit} answers at ${address}`,
      holds: found?.standsOn === unit,
      measured: { standsOn: found?.standsOn ?? 'nothing' },
    }
  })
  const asked = (await ports.estate()).hosts.filter(hasAgent)
  if (asked.length === 0) return evidence
  const { hosts, evidence: told } = await reaching(ports, step.name, [asked])
  evidence.push(...told)
  const [host] = hosts
  if (host === undefined) return evidence
  const { shares } = await ports.host(host.agentAddress)
  const named = await shares.connect(step.name)
  const addresses = step.instances.map(({ address }) => address)
  evidence.push({
    claim: `${host.name} looks up ${step.name} and reaches it`,
    holds: named.isOpen && addresses.includes(named.address ?? ''),
    measured: {
      address: named.address ?? 'none',
      isOpen: `${named.isOpen}`,
      milliseconds: named.milliseconds.toFixed(1),
    },
  })
  for (const address of addresses) {
    const { isOpen } = await shares.connect(address)
    evidence.push({ claim: `${host.name} reaches ${address}`, holds: isOpen, measured: { isOpen: `${isOpen}` } })
  }
  return evidence
}

export const serveFiles: ChangeKind<Intent, Step> = {
  ...serveFilesIntent,
  needs: () => [those('fileServices', 'name', '')],
  plan,
  async runStep(step, { key }, ports) {
    const services = await ports.of(step.systemId, 'fileServices')
    const made = (await services.byKey(key)) ?? (await services.make(step, key))
    const isDone = async () =>
      (await services.at(made.locator))?.instances.every(each => each.standsOn !== null) === true
    await waitForTask({ systemId: step.systemId, task: made.task, words: 'Starting', isDone }, ports)
    // Where the task says that it stands is what the system says; what bears the mark of this step is the one.
    return { locator: (await services.byKey(key))?.locator ?? made.locator }
  },
  async undoStep(step, { key }, ports) {
    const services = await ports.of(step.systemId, 'fileServices')
    const made = await services.byKey(key)
    if (made === undefined) return undefined
    await services.remove(made.locator, step.name)
    await ports.records.collect(step.systemId)
    await ports.records.gone(step.systemId, [made.locator])
    return undefined
  },
  prove: (_intent, made, facts, ports) => prove(firstStep(made), facts, ports),
  collects: ({ systemId }) => [systemId],
  reverse: () => undefined,
}
