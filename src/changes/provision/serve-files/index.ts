import { those, type Estate } from '@/core/estate'
import { serveFilesIntent, type ServeFilesIntent as Intent } from '@/core/intents'
import { consecutiveAddresses, nameTrouble, plainAddress, readAddress } from '@/core/network'
import type { Plan, PlanCheck } from '@/core/plan'
import type { ChangePorts } from '@/ports'
import { hasAgent } from '@/core/estate'
import type { ChangeKind, Evidence, Facts } from '../../ChangeKind'
import { absent, advise, answers, rule, there } from '../../parts/checks'
import { reaching } from '../../parts/files/reaching'
import { fact, firstStep } from '../../parts/known'
import { lookInto } from '../../parts/look'
import { outlined } from '../../parts/outline'
import { waitForTask } from '../../parts/waitForTask'

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
/** RFC 1123, 2.1, with a dot at least: a name that means the same everywhere. */
const fullName = /^(?=.{4,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i
const listed = (text: string) =>
  text
    .split(',')
    .map(each => each.trim())
    .filter(each => each !== '')

/** What the plan looks at, and what follows from it. */
function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const units = system?.fileUnits ?? []
  const first = readAddress(intent.firstAddress)
  const addresses = first === undefined ? undefined : consecutiveAddresses(first, Math.max(1, units.length))
  return { addresses, estate, first, intent, look, name: intent.name.trim().toLowerCase(), system, units }
}
type Seen = ReturnType<typeof see>

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
    effects: [
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
          units.length < 2
            ? 'nothing answers until it is back'
            : 'another answers at its address; hosts wait for that long',
      },
    ],
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

function checksOf({ addresses, estate, first, intent, name, system, units }: Seen): readonly PlanCheck[] {
  const namesake = estate.fileServices.find(each => each.name.toLowerCase() === name)
  const used = estate.fileServices.flatMap(each => each.instances.map(({ address }) => address))
  const taken = addresses?.find(address => used.includes(address))
  const troubles = (addresses ?? []).map(address => nameTrouble(name, address, estate.nameAnswers))
  const servers = listed(intent.nameServers).filter(each => plainAddress(each) === undefined)
  return [
    there('system', system, each => `It stands on ${each.name}.`, 'Choose a system.', { field: 'systemId' }),
    ...(system === undefined
      ? []
      : [
          answers(system),
          rule(
            'units',
            units.length > 0,
            `It stands on ${units.join(', ')}.`,
            `${system.name} has nothing on which a file service could stand.`,
            { field: 'systemId', remedy: 'Form a cluster of its nodes first, or choose another system.' },
          ),
        ]),
    rule(
      'name',
      fullName.test(name),
      'Its name is a full one.',
      'Give a full name of letters, digits and hyphens with dots between, such as files.kilnhill.example.',
      { field: 'name' },
    ),
    absent('name-free', namesake, 'No other file service has the name.', each => `${each.name} is there already.`, {
      field: 'name',
    }),
    rule(
      'address',
      first !== undefined,
      'The first address can be read.',
      'Give an address with its subnet, such as 10.61.40.21/24.',
      { field: 'firstAddress' },
    ),
    ...(first === undefined
      ? []
      : [
          rule(
            'addresses',
            addresses !== undefined,
            `It has ${addresses?.length ?? 0} addresses, as many as units.`,
            'The subnet ends before every unit has an address.',
            { field: 'firstAddress', remedy: 'Begin with a lower address, or a larger subnet.' },
          ),
        ]),
    absent(
      'addresses-free',
      taken,
      'No other file service has one of them.',
      each => `${each} belongs to another file service.`,
      { field: 'firstAddress' },
    ),
    rule(
      'name-servers',
      servers.length === 0,
      'The name servers are addresses.',
      `${servers.join(', ')} is no address.`,
      { field: 'nameServers' },
    ),
    ...(troubles.every(each => each === null) ? [] : [namesCheck(troubles)]),
  ]
}

const namesCheck = (troubles: readonly (string | null | undefined)[]) => {
  const told = troubles.filter(each => typeof each === 'string')
  return advise('names', told.length === 0, 'Its name and addresses lead to each other.', told[0] ?? '', {
    field: 'name',
    remedy: 'Set the records of the name server.',
  })
}

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
