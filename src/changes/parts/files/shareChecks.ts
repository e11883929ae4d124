import {
  exportTable,
  isMode,
  isWho,
  judgeFile,
  mayFile,
  ruleReach,
  ruleTroubles,
  unreached,
  wholeMode,
  everybody,
  type AccessEntry,
  type ExportRule,
  type ShareGrant,
} from '@/core/access'
import type { Estate, Share } from '@/core/estate'
import type { PlanCheck } from '@/core/plan'
import { advise, must, rule } from '../checks'

/** What is asked for of a share's rights, as far as it can be used. */
export interface RightsAsked {
  readonly ownerUid: number
  readonly ownerGid: number
  readonly mode: string
  /** Left out: none. */
  readonly acl?: readonly AccessEntry[]
  readonly rules: readonly ExportRule[]
  readonly grants?: readonly ShareGrant[]
  /** Those of its file service, which count for it as well. */
  readonly serviceGrants?: readonly ShareGrant[]
}

export const rightsAsked = ({
  ownerUid,
  ownerGid,
  mode,
  acl = [],
  rules,
  grants = [],
}: RightsAsked): Pick<Share, 'ownerUid' | 'ownerGid' | 'mode' | 'acl' | 'rules' | 'grants'> => ({
  ownerUid,
  ownerGid,
  mode: wholeMode(mode),
  // As a system states it: an entry that is not handed down says nothing of it.
  acl: acl.map(({ isInherited, ...each }) => (isInherited === true ? { ...each, isInherited } : each)),
  rules: rules.map(each => ({ ...each, client: each.client.trim(), flavours: [...each.flavours] })),
  grants: grants.map(each => ({ ...each })),
})

const shownRules = 6

/** Who may use a share, by the fields of it that say so. */
export const shareRightsFields = ['rules', 'grants', 'mode', 'acl', 'ownerUid', 'ownerGid'] as const

/** Over what a share is served. */
export interface Over {
  readonly isNfs: boolean
  readonly isSmb: boolean
}

export const overOf = (protocols: readonly string[]): Over => ({
  isNfs: protocols.some(each => each.startsWith('NFS')),
  isSmb: protocols.some(each => each.startsWith('SMB')),
})

/** That rules, grants and mode can be, and what of them is hardly meant. */
export function rightsChecks(asked: RightsAsked, estate: Estate, over: Over): PlanCheck[] {
  const { mode } = asked
  return [
    rule(
      'mode',
      isMode(mode),
      `Its root has mode ${wholeMode(mode)}.`,
      'A mode is three or four octal digits, such as 0770.',
      { field: 'mode' },
    ),
    ...entryChecks(asked),
    ...(over.isNfs ? ruleChecks(asked) : []),
    ...(over.isSmb ? grantChecks(asked, estate) : []),
  ]
}

/** That each entry of an access list names somebody, and decides for somebody. */
function entryChecks({ acl = [], ownerUid, ownerGid, mode }: RightsAsked): PlanCheck[] {
  if (acl.length === 0) return []
  const field = { field: 'acl' }
  const wrong = acl.flatMap(({ who }, index) => (isWho(who) ? [] : [`Entry ${index + 1}: "${who}" names nobody.`]))
  const never = unreached(acl).map(index => `Entry ${index + 1}`)
  const owner = { uid: ownerUid, gid: -1, groups: [] }
  const root = { uid: ownerUid, gid: ownerGid, mode, acl }
  return [
    rule('entries', wrong.length === 0, 'Each entry names somebody.', wrong.slice(0, shownRules).join(' '), {
      ...field,
      remedy: 'Choose the owner, the group or everyone, or give a uid or a gid.',
    }),
    advise(
      'entries-reached',
      never.length === 0,
      'Each entry decides for somebody.',
      `${never.slice(0, shownRules).join(', ')} ${never.length === 1 ? 'decides' : 'decide'} for nobody: entries before are for all of that.`,
      field,
    ),
    advise(
      'owner-reads',
      ownerUid === 0 || judgeFile(root, owner, 'read').allowed,
      'Its owner may read it.',
      'No entry lets its owner read it, and without one nobody may: the mode does not count beside a list.',
      field,
    ),
  ]
}

/** That grants are for somebody whom a directory has, and each once. */
export function grantListChecks(grants: readonly ShareGrant[], { principals }: Estate): PlanCheck[] {
  const known = new Set(principals.map(({ durableId }) => durableId))
  const unknown = grants.filter(({ who }) => who !== everybody && !known.has(who))
  const there = new Set(principals.flatMap(each => (each.goneSince === null ? [each.durableId] : [])))
  const gone = grants.filter(({ who }) => known.has(who) && !there.has(who))
  const twice = grants.filter(({ who }, index) => grants.findIndex(each => each.who === who) !== index)
  const names = (all: readonly ShareGrant[]) =>
    all
      .slice(0, shownRules)
      .map(({ name }) => name)
      .join(', ')
  const field = { field: 'grants' }
  return [
    rule(
      'grants-known',
      unknown.length === 0,
      'Each grant is for a person or a group of a directory.',
      `No directory has ${names(unknown)}.`,
      field,
    ),
    rule('grants-once', twice.length === 0, 'Each has one grant.', `${names(twice)} has more than one grant.`, field),
    advise(
      'grants-there',
      gone.length === 0,
      'Each is there still.',
      `${names(gone)} is no longer in its directory.`,
      field,
    ),
  ]
}

/** Grants of a share, and that they let somebody in. */
function grantChecks({ grants = [], serviceGrants = [] }: RightsAsked, estate: Estate): PlanCheck[] {
  return [
    ...grantListChecks(grants, estate),
    advise(
      'somebody-granted',
      [...grants, ...serviceGrants].some(({ right }) => right !== 'none'),
      'Somebody may use it over SMB.',
      'No grant lets anybody use it over SMB.',
      { field: 'grants', remedy: 'Grant a group what it needs.' },
    ),
  ]
}

function ruleChecks(asked: RightsAsked): PlanCheck[] {
  const { rules } = asked
  const troubles = ruleTroubles(rules, ruleReach(rules))
  const wrong = troubles.filter(({ level }) => level === 'must')
  const odd = troubles.filter(({ level }) => level === 'warn')
  const words = (all: typeof troubles) =>
    all
      .slice(0, shownRules)
      .map(({ index, why }) => `Rule ${index + 1}: ${why}`)
      .join(' ')
  return [
    rule('rules', wrong.length === 0, 'Each rule can be read.', words(wrong), { field: 'rules' }),
    advise('rules-reached', odd.length === 0, 'Each rule decides for somebody.', words(odd), { field: 'rules' }),
    advise(
      'somebody',
      rules.some(({ access }) => access !== 'none'),
      'Some hosts may mount it.',
      'No rule lets any host mount it.',
      {
        field: 'rules',
        remedy: 'Add a rule for a host or a subnet.',
      },
    ),
    ...kerberosCheck(rules),
    ...contradiction(asked),
  ]
}

/** Kerberos is to be had only by a service with a principal in a directory, which none has yet. */
function kerberosCheck(rules: readonly ExportRule[]): PlanCheck[] {
  const only = rules.flatMap(({ flavours }, index) =>
    flavours.length > 0 && !flavours.includes('sys') ? [index + 1] : [],
  )
  if (only.length === 0) return []
  return [
    must(
      'sign-in',
      false,
      `Rule ${only.join(', ')} takes Kerberos only, and its file service has no principal in a directory: nobody could sign in.`,
      {
        field: 'rules',
        remedy: 'Let it take sys as well.',
      },
    ),
  ]
}

/** A rule that lets hosts write, and a mode that lets nobody: the stricter counts. */
function contradiction({ rules, mode, acl = [] }: RightsAsked): PlanCheck[] {
  if (!isMode(mode)) return []
  const lets = rules.findIndex(each => each.access === 'rw' && each.squash === 'all')
  if (lets < 0) return []
  const own = rules[lets]
  const root = { uid: -1, gid: -1, mode: wholeMode(mode), acl }
  const request = {
    clientAddress: '',
    clientName: null,
    uid: own?.anonUid ?? 0,
    gid: own?.anonGid ?? 0,
    groups: [],
    flavour: 'sys' as const,
    operation: 'write' as const,
  }
  const answer = mayFile(
    exportTable([{ client: '*', access: 'rw', squash: 'none', anonUid: 0, anonGid: 0, flavours: ['sys'] }]),
    request,
    root,
  )
  return [
    advise(
      'mode-and-rules',
      answer.allowed,
      `The ${acl.length === 0 ? 'mode' : 'access list'} lets those write whom the rules let.`,
      `Rule ${lets + 1} lets hosts write, but makes everybody uid ${own?.anonUid ?? 0}, who by the ${acl.length === 0 ? 'mode' : 'access list'} may not: the stricter counts.`,
      { field: acl.length === 0 ? 'mode' : 'acl' },
    ),
  ]
}
