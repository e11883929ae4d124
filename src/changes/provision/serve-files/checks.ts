import type { Estate } from '@/core/estate'
import type { ServeFilesIntent as Intent } from '@/core/intents'
import { consecutiveAddresses, nameTrouble, plainAddress, readAddress } from '@/core/network'
import type { PlanCheck } from '@/core/plan'
import { absent, advise, answers, rule, there } from '../../parts/checks'
import { lookInto } from '../../parts/look'

/** RFC 1123, 2.1, with a dot at least: a name that means the same everywhere. */
const fullName = /^(?=.{4,253}$)([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?$/i
/** What stands between commas. */
export const listed = (text: string) =>
  text
    .split(',')
    .map(each => each.trim())
    .filter(each => each !== '')

/** What the plan looks at, and what follows from it. */
export function see(estate: Estate, intent: Intent) {
  const look = lookInto(estate)
  const system = look.one('systems', intent.systemId)
  const units = system?.fileUnits ?? []
  const first = readAddress(intent.firstAddress)
  const addresses = first === undefined ? undefined : consecutiveAddresses(first, Math.max(1, units.length))
  return { addresses, estate, first, intent, look, name: intent.name.trim().toLowerCase(), system, units }
}
type Seen = ReturnType<typeof see>

export const checksOf = (seen: Seen): readonly PlanCheck[] => [
  ...placeChecks(seen),
  ...nameChecks(seen),
  ...addressChecks(seen),
  ...serverChecks(seen),
]

function placeChecks({ system, units }: Seen): readonly PlanCheck[] {
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
  ]
}

function nameChecks({ estate, name }: Seen): readonly PlanCheck[] {
  const namesake = estate.fileServices.find(each => each.name.toLowerCase() === name)
  return [
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
  ]
}

function addressChecks({ addresses, estate, first }: Seen): readonly PlanCheck[] {
  const used = estate.fileServices.flatMap(each => each.instances.map(({ address }) => address))
  const taken = addresses?.find(address => used.includes(address))
  return [
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
  ]
}

function serverChecks({ addresses, estate, intent, name }: Seen): readonly PlanCheck[] {
  const troubles = (addresses ?? []).map(address => nameTrouble(name, address, estate.nameAnswers))
  const servers = listed(intent.nameServers).filter(each => plainAddress(each) === undefined)
  return [
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
