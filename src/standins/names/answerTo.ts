import packet, { type Answer, type OptAnswer, type Packet } from 'dns-packet'
import { plain, type NameRecord, type Zones } from './Zones'

/** Source: RFC 1035, 4.1.1; RFC 2136, 2.2. */
export const rcodes = { badFormat: 1, noName: 3, notImplemented: 4, refused: 5 } as const
const largestUdpBytes = 1232
const longestChain = 8

/** A refusal of a request, which it repeats as far as it was understood. */
export const refusing = (query: Packet, rcode: number): Packet => ({
  type: 'response',
  id: query.id ?? 0,
  flags: ((query.flags ?? 0) & (15 << 11)) | ((query.flags ?? 0) & packet.RECURSION_DESIRED) | rcode,
  questions: query.questions ?? [],
  answers: [],
})

/** What the zones say to a question; aliases are followed as far as they stay within. Source: RFC 1034, 4.3.2. */
export function answerTo(zones: Zones, query: Packet): Packet {
  const options = query.additionals?.find((each): each is OptAnswer => each.type === 'OPT')
  const version = (options as { readonly ednsVersion?: number } | undefined)?.ednsVersion ?? 0
  // Who speaks EDNS is answered in EDNS; another version than 0 is told so by an extended code. Source: RFC 6891, 6.1.3.
  const additionals = options === undefined ? [] : [opt(version === 0 ? 0 : 1)]
  const [question, ...more] = query.questions ?? []
  if (question === undefined || more.length > 0) return { ...refusing(query, rcodes.badFormat), additionals }
  if (version !== 0) return { ...refusing(query, 0), additionals }
  const name = plain(question.name)
  const zone = zones.zoneOf(name)
  if (zone === undefined || (question.class ?? 'IN') !== 'IN')
    return { ...refusing(query, rcodes.refused), additionals }
  const { answers, isThere } = found(zones, name, question.type)
  return {
    ...refusing(query, isThere ? 0 : rcodes.noName),
    flags: (refusing(query, isThere ? 0 : rcodes.noName).flags ?? 0) | packet.AUTHORITATIVE_ANSWER,
    answers,
    // What is not there is told with how long that may be remembered. Source: RFC 2308, 3.
    authorities: answers.length > 0 ? [] : [soa(zones, zone)],
    additionals,
  }
}

function found(zones: Zones, asked: string, type: string): { readonly answers: Answer[]; readonly isThere: boolean } {
  const answers: Answer[] = []
  let name = asked
  for (let step = 0; step < longestChain; step += 1) {
    const own = [...zones.at(name).map(asAnswer), ...apex(zones, name)]
    const alias = own.find(each => each.type === 'CNAME')
    if (alias === undefined || type === 'CNAME' || type === 'ANY') {
      answers.push(...own.filter(each => type === 'ANY' || each.type === type))
      return { answers, isThere: own.length > 0 || zones.hasBelow(name) || step > 0 }
    }
    answers.push(alias)
    name = plain(String((alias as { readonly data: unknown }).data))
    if (zones.zoneOf(name) === undefined) break
  }
  return { answers, isThere: true }
}

const asAnswer = ({ name, type, data, ttl }: NameRecord): Answer => ({ type, name, ttl, data }) as Answer

/** What stands at the top of every zone, and the address of the server that they name. */
function apex(zones: Zones, name: string): Answer[] {
  if (zones.names.includes(name)) return [soa(zones, name), { type: 'NS', name, ttl: 3600, data: serverName(zones) }]
  return name === serverName(zones) ? [{ type: 'A', name, ttl: 3600, data: '127.0.0.1' }] : []
}

export const serverName = (zones: Zones) => `ns.${zones.names[0] ?? 'invalid'}`

const soa = (zones: Zones, zone: string): Answer => ({
  type: 'SOA',
  name: zone,
  ttl: 300,
  data: {
    mname: serverName(zones),
    rname: `hostmaster.${zones.names[0] ?? 'invalid'}`,
    serial: zones.serial,
    refresh: 3600,
    retry: 600,
    expire: 604_800,
    minimum: 300,
  },
})

const opt = (extendedRcode: number): Answer =>
  ({
    type: 'OPT',
    name: '.',
    udpPayloadSize: largestUdpBytes,
    extendedRcode,
    ednsVersion: 0,
    flags: 0,
    options: [],
  }) as unknown as Answer
