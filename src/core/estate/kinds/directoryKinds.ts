import { directorySchema, principalSchema } from '../directorySchemas'
import type { ObjectKind } from './ObjectKind'

/** Who people are, and where that is kept. */
export const directoryKinds: { readonly [Name in 'directories' | 'principals']: ObjectKind<Name> } = {
  directories: {
    name: 'directories',
    words: { one: 'directory', many: 'directories' },
    schema: directorySchema,
    references: {},
    moving: ['state', 'stateWhy', 'readAt', 'certificateEndsAt', 'personCount', 'groupCount'],
    ours: ['name', 'address', 'fingerprint', 'baseDn', 'readAs'],
    order: ['name'],
    search: { by: ['name', 'address'], title: 'name', detail: 'address' },
    page: '/grant/directories?sel={id}',
    list: {
      place: '/grant/directories',
      about: 'Where people and groups are kept. Wendrel reads them, and never writes to them.',
      columns: [
        { field: 'name', words: 'Directory', isWide: true },
        { field: 'address', words: 'Address', as: 'identifier' },
        { field: 'baseDn', words: 'Below', as: 'identifier', isFolded: true },
        { field: 'state', words: 'State' },
        { field: 'readAt', words: 'Read', as: 'instant' },
        { field: 'certificateEndsAt', words: 'Certificate until', as: 'instant', isFolded: true },
        { field: 'personCount', words: 'People', as: 'count' },
        { field: 'groupCount', words: 'Groups', as: 'count' },
      ],
    },
  },
  principals: {
    name: 'principals',
    words: { one: 'person or group', many: 'people and groups' },
    schema: principalSchema,
    references: { directoryId: 'directories' },
    moving: [],
    ours: [],
    order: ['name', 'id'],
    search: { by: ['name', 'account'], title: 'name', detail: 'account' },
    page: '/grant/people/{id}',
    list: {
      place: '/grant/people',
      about:
        'As their directories have them. What they may do follows from their groups, and from the rights of shares.',
      concern: { field: 'isDisabled', is: true, words: 'barred from signing in' },
      columns: [
        { field: 'name', words: 'Name', isWide: true },
        { field: 'account', words: 'Account', as: 'identifier' },
        { field: 'sort', words: 'Sort' },
        { field: 'number', words: 'uid or gid', as: 'identifier' },
        { field: 'memberOf', words: 'In groups', as: 'count' },
        { field: 'directoryId', words: 'Directory', as: 'name of', isFolded: true },
        { field: 'goneSince', words: 'Gone since', as: 'instant', isFolded: true },
      ],
    },
  },
}
