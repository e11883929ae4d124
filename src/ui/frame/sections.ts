/** The sections in the order of the work, with the digit that leads there. */
export const sections = [
  { key: '1', href: '/', words: 'Today' },
  { key: '2', href: '/build', words: 'Build' },
  { key: '3', href: '/provision', words: 'Provision' },
] as const

/** Commands besides going somewhere: each opens a draft or does one thing. */
export const commands = [
  { words: 'Register a system', href: '/build?draft=register-system', detail: 'draft' },
  { words: 'Set the storage network', href: '/build/network?draft=set-storage-network', detail: 'draft' },
  { words: 'Form a cluster', href: '/build/clusters', detail: 'draft' },
  { words: 'Erase a drive', href: '/build/drives?state=foreign', detail: 'page' },
  { words: 'Import a firmware catalogue', href: '/build/network?draft=import-catalogue', detail: 'draft' },
  { words: 'Create a pool', href: '/build/pools?draft=choose-system', detail: 'draft' },
  { words: 'Provision a volume', href: '/provision?draft=provision-volume', detail: 'draft' },
  { words: 'Register a host', href: '/provision/hosts?draft=register-host', detail: 'draft' },
  { words: 'Network', href: '/build/network', detail: 'page' },
  { words: 'Drives', href: '/build/drives', detail: 'page' },
  { words: 'Pools', href: '/build/pools', detail: 'page' },
  { words: 'Hosts', href: '/provision/hosts', detail: 'page' },
  { words: 'Account, administrators, tokens, settings', href: '/account', detail: 'page' },
  { words: 'Record of who did what', href: '/account/record', detail: 'page' },
] as const

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
