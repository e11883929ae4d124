import { isStorable, storable } from '@/core/input'
import type { DirectoryReading, PrincipalSeen } from '@/ports'

/** An entry as it came: each attribute once or several times. */
export type Entry = Readonly<Record<string, string | Buffer | readonly (string | Buffer)[]>> & { readonly dn: string }

/** By small letters, as attribute names are compared (RFC 4512, 2.5). */
type Attributes = ReadonlyMap<string, readonly string[]>

export const attributes = [
  'objectClass',
  'entryUUID',
  'uid',
  'cn',
  'displayName',
  'uidNumber',
  'gidNumber',
  'member',
  'uniqueMember',
  'memberUid',
  'pwdAccountLockedTime',
]

/** Sources: RFC 4519 (person, groupOfNames, groupOfUniqueNames), RFC 2798 (inetOrgPerson), RFC 2307 (posixAccount, posixGroup). */
const personClasses = ['person', 'inetorgperson', 'posixaccount']
const groupClasses = ['groupofnames', 'groupofuniquenames', 'posixgroup']
export const everybodyFilter = `(|${[...personClasses, ...groupClasses].map(each => `(objectClass=${each})`).join('')})`

const longestName = 255
const largestNumber = 4_294_967_294

const textsOf = (value: Entry[string] | undefined): readonly string[] =>
  (value === undefined ? [] : Array.isArray(value) ? value : [value]).map(each =>
    typeof each === 'string' ? each : (each as Buffer).toString('utf8'),
  )

const attributesOf = (entry: Entry): Attributes =>
  new Map(Object.entries(entry).map(([name, value]) => [name.toLowerCase(), textsOf(value)]))

/** Two spellings of a name as one. Source: RFC 4514, 2.4 and 4. */
const plainDn = (dn: string) =>
  dn
    .replace(/\\([0-9a-f]{2})/gi, (whole, hex: string) => {
      const character = String.fromCharCode(Number.parseInt(hex, 16))
      return /[ "#+,;<=>\\]/.test(character) ? `\\${character}` : whole
    })
    .replace(/\s*([,=+])\s*/g, '$1')
    .toLowerCase()

const numberOf = (texts: readonly string[] | undefined): number | null => {
  const [first = ''] = texts ?? []
  return /^\d{1,10}$/.test(first) && Number(first) <= largestNumber ? Number(first) : null
}

interface Read {
  readonly principal: PrincipalSeen
  readonly members: readonly string[]
  readonly memberUids: readonly string[]
}

/**
 * People and groups as a directory's entries state them, each with the groups of which it is a member itself. What names nobody that was
 * read is passed over; what cannot be used is told of.
 */
export function principalsOf(entries: readonly Entry[]): Omit<DirectoryReading, 'certificateEndsAt'> {
  const skipped: { readonly dn: string; readonly why: string }[] = []
  const seen = new Set<string>()
  const read = entries.flatMap((entry): Read[] => {
    const found = principalOf(entry)
    const why =
      'why' in found ? found.why : seen.has(found.principal.durableId) ? 'Another entry has its entryUUID.' : undefined
    if (why !== undefined) skipped.push({ dn: storable(entry.dn.slice(0, 500)), why })
    if ('why' in found || why !== undefined) return []
    seen.add(found.principal.durableId)
    return [found]
  })
  const above = groupsOf(read)
  return {
    skipped,
    principals: read.map(({ principal }) => ({
      ...principal,
      memberOf: (above.get(principal.durableId) ?? []).slice(0, 2000),
    })),
  }
}

/** By member, the groups that name it, by DN or by account. */
function groupsOf(read: readonly Read[]): ReadonlyMap<string, string[]> {
  const byDn = new Map(read.map(({ principal }) => [plainDn(principal.dn), principal.durableId]))
  const byAccount = new Map(
    read.flatMap(({ principal }) =>
      principal.sort === 'person' ? [[principal.account, principal.durableId] as const] : [],
    ),
  )
  const above = new Map<string, string[]>()
  for (const { principal, members, memberUids } of read) {
    const named = [...members.map(dn => byDn.get(plainDn(dn))), ...memberUids.map(uid => byAccount.get(uid))]
    for (const id of new Set(named)) {
      if (id === undefined) continue
      const own = above.get(id) ?? []
      own.push(principal.durableId)
      above.set(id, own)
    }
  }
  return above
}

function principalOf(entry: Entry): Read | { readonly why: string } {
  const own = attributesOf(entry)
  const classes = (own.get('objectclass') ?? []).map(each => each.toLowerCase())
  const isGroup = groupClasses.some(each => classes.includes(each))
  if (!isGroup && !personClasses.some(each => classes.includes(each)))
    return { why: 'It is neither a person nor a group.' }
  const [durableId] = own.get('entryuuid') ?? []
  if (durableId === undefined || durableId.length > 100)
    return { why: 'It has no entryUUID, by which it would be known again.' }
  const [common] = own.get('cn') ?? []
  const account = (isGroup ? common : own.get('uid')?.[0]) ?? common
  if (account === undefined || account === '') return { why: 'It has neither uid nor cn.' }
  const name = own.get('displayname')?.[0] ?? common ?? account
  if (![durableId, account, entry.dn].every(isStorable)) return { why: 'A name of it holds a NUL or half a character.' }
  if (account.length > longestName || name.length > longestName)
    return { why: `A name is longer than ${longestName} characters.` }
  const gid = numberOf(own.get('gidnumber'))
  return {
    principal: {
      durableId: durableId.toLowerCase(),
      sort: isGroup ? 'group' : 'person',
      account,
      // People may mostly set this one themselves: what cannot be kept of it must not take them, or everybody, out of what is known.
      name: storable(name) || account,
      dn: entry.dn.slice(0, 2000),
      number: isGroup ? gid : numberOf(own.get('uidnumber')),
      primaryGid: isGroup ? null : gid,
      memberOf: [],
      isDisabled: (own.get('pwdaccountlockedtime') ?? []).length > 0,
    },
    members: isGroup ? [...(own.get('member') ?? []), ...(own.get('uniquemember') ?? [])] : [],
    memberUids: isGroup ? (own.get('memberuid') ?? []) : [],
  }
}
