import { kindList, titleOf } from '@/core/estate'
import { commandAddress, intents } from '@/core/intents'

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
