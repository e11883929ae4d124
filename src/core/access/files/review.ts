import { entryWords, whoWords } from './accessList'
import type { AccessEntry } from './modeBits'
import type { ExportRule } from './exportRules'
import { everybody, type GrantedRight, type ShareGrant } from './shareGrants'

/** One right that somebody has given on a share, to be looked at by itself. */
export interface ReviewLine {
  /** The same as long as the right is the same. */
  readonly key: string
  readonly of: 'grant' | 'rule' | 'entry'
  /** Whom it is for: a durable id, `*`, hosts, or whom an entry of the access list names. */
  readonly who: string
  readonly words: string
}

/** What was decided of a line. */
export interface ReviewedLine extends ReviewLine {
  readonly verdict: 'stays' | 'goes'
}

interface Given {
  readonly rules: readonly ExportRule[]
  readonly grants: readonly ShareGrant[]
  readonly acl?: readonly AccessEntry[]
}

const granted: Readonly<Record<GrantedRight, string>> = {
  none: 'is refused',
  read: 'may read',
  change: 'may read and write',
  full: 'may read, write and set rights',
}
const access = { rw: 'may read and write', ro: 'may read', none: 'is refused' } as const
const squash = { none: 'nobody is squashed', root: 'root is squashed', all: 'everybody is squashed' } as const

const grantLine = ({ who, name, right }: ShareGrant): ReviewLine => ({
  key: `grant ${right} ${who}`,
  of: 'grant',
  who,
  words: `${who === everybody ? 'Everybody who signs in' : name} ${granted[right]}`,
})

const ruleLine = (rule: ExportRule): ReviewLine => ({
  key: `rule ${rule.client} ${rule.access} ${rule.squash} ${rule.anonUid} ${rule.anonGid} ${rule.flavours.join('+')}`,
  of: 'rule',
  who: rule.client,
  words: `${rule.client === '*' ? 'Any host' : rule.client} ${access[rule.access]}, ${squash[rule.squash]}`,
})

const entryLine = (entry: AccessEntry): ReviewLine => ({
  key: `entry ${entry.kind} ${entry.may} ${entry.who}${entry.isInherited === true ? ' handed down' : ''}`,
  of: 'entry',
  who: entry.who,
  words: `By the access list ${whoWords(entry.who)} ${entryWords(entry)}${entry.isInherited === true ? ', also what is made there' : ''}`,
})

/** Each right of a share once, those over SMB first. */
export const reviewLines = ({ rules, grants, acl = [] }: Given): ReviewLine[] => [
  ...new Map(
    [...grants.map(grantLine), ...rules.map(ruleLine), ...acl.map(entryLine)].map(line => [line.key, line]),
  ).values(),
]

/** The rights of a share without those that go; their order stays. */
export function withoutLines<G extends Given>({ rules, grants, acl = [] }: G, goes: ReadonlySet<string>) {
  return {
    rules: rules.filter(rule => !goes.has(ruleLine(rule).key)),
    grants: grants.filter(grant => !goes.has(grantLine(grant).key)),
    acl: acl.filter(entry => !goes.has(entryLine(entry).key)),
  }
}

/** What has been given since a review, what is gone since, and what was to go and has not. */
export function sinceReview(now: readonly ReviewLine[], then: readonly ReviewedLine[]) {
  const [has, had] = [new Set(now.map(({ key }) => key)), new Set(then.map(({ key }) => key))]
  return {
    added: now.filter(({ key }) => !had.has(key)),
    gone: then.filter(({ key, verdict }) => verdict === 'stays' && !has.has(key)),
    stillThere: then.filter(({ key, verdict }) => verdict === 'goes' && has.has(key)),
  }
}
