import { kindList, titleOf } from '@/core/estate'
import { commandAddress, intents } from '@/core/intents'

/** The sections in the order of the work, with the digit that leads there. */
export const sections = [
  { key: '1', href: '/', words: 'Today' },
  { key: '2', href: '/build', words: 'Build' },
  { key: '3', href: '/provision', words: 'Provision' },
] as const

interface Command {
  readonly words: string
  readonly href: string
  readonly detail: 'draft' | 'page'
}

const pages = [
  { words: 'Network', href: '/build/network' },
  { words: 'Drives', href: '/build/drives' },
  { words: 'Pools', href: '/build/pools' },
  ...kindList.flatMap(kind => (kind.list === undefined ? [] : [{ words: titleOf(kind), href: kind.list.place }])),
  { words: 'Hosts', href: '/provision/hosts' },
  { words: 'Account', href: '/account' },
  { words: 'Your password', href: '/account#password' },
  { words: 'Administrators', href: '/account#administrators' },
  { words: 'Bearer tokens', href: '/account#tokens' },
  { words: 'Settings: volume names, holding, name server, addresses', href: '/account#settings' },
  { words: 'Record of who did what', href: '/account/record' },
] as const

/** Commands besides going to a section: whatever can be drafted with nothing chosen, and every page. */
export const commands: readonly Command[] = [
  ...intents.flatMap((kind): Command[] => {
    const href = commandAddress(kind)
    return href === undefined ? [] : [{ words: kind.title, href, detail: 'draft' }]
  }),
  ...pages.map((page): Command => ({ ...page, detail: 'page' })),
]

/** Every key, for the list that `?` shows. */
export const keys = [
  ['1 – 3', 'Today, Build, Provision'],
  ['0', 'Changes'],
  ['/', 'Search everything'],
  ['Ctrl K', 'Commands'],
  ['j  k', 'Next and previous row'],
  ['Enter', 'Open the row in the margin'],
  ['n', 'New draft here'],
  ['e', "Go to the draft's first field"],
  ['Shift Enter', 'Carry out a checked draft'],
  ['.', 'Fold or unfold the margin'],
  ['Esc', 'Leave a field, close what is open'],
  ['?', 'This list'],
] as const
