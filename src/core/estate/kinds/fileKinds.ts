import { fileServiceSchema, fileSystemSchema, shareSchema } from '../fileSchemas'
import type { ObjectKind } from './ObjectKind'

/** By what, and what, hosts reach of files. */
export const fileKinds: { readonly [Name in 'fileServices' | 'fileSystems' | 'shares']: ObjectKind<Name> } = {
  fileServices: {
    name: 'fileServices',
    words: { one: 'file service', many: 'file services' },
    schema: fileServiceSchema,
    references: {},
    moving: [],
    ours: [],
    order: ['name', 'id'],
    search: { by: ['name'], title: 'name', detail: 'name' },
    page: '/provision/file-services/{id}',
    list: {
      place: '/provision/file-services',
      about: 'By its name hosts reach the shares of a system; it has an address on each node or controller.',
      columns: [
        { field: 'name', words: 'File service', isWide: true },
        { field: 'systemId', words: 'System', as: 'name of' },
        { field: 'instances', words: 'Answers at', as: 'instances', isWide: true },
        { field: 'joinedTo', words: 'Directory', as: 'identifier' },
        { field: 'nameServers', words: 'Name servers', as: 'identifier', isFolded: true },
      ],
    },
  },
  fileSystems: {
    name: 'fileSystems',
    words: { one: 'file system', many: 'file systems' },
    schema: fileSystemSchema,
    references: { volumeId: 'volumes' },
    moving: ['usedBytes'],
    ours: [],
    order: ['name', 'id'],
    search: { by: ['name'], title: 'name', detail: 'name' },
    page: '/provision/file-systems?sel={id}',
    list: {
      place: '/provision/file-systems',
      about: 'What systems keep files on. One whose share was taken away keeps them, and can be shared again.',
      concern: { field: 'shareCount', is: 0, words: 'shared by nobody' },
      columns: [
        { field: 'name', words: 'File system', isWide: true },
        { field: 'shareCount', words: 'Shares', as: 'count' },
        { field: 'volumeId', words: 'On volume', as: 'name of' },
        { field: 'systemId', words: 'System', as: 'name of' },
        { field: 'usedBytes', words: 'Used', as: 'bytes' },
        { field: 'sizeBytes', words: 'Size', as: 'bytes' },
      ],
    },
  },
  shares: {
    name: 'shares',
    words: { one: 'share', many: 'shares' },
    schema: shareSchema,
    references: { fileServiceId: 'fileServices', volumeId: 'volumes' },
    moving: ['usedBytes', 'quotaUsage'],
    ours: ['labels', 'warnPercent'],
    order: ['name', 'id'],
    search: { by: ['name', 'path'], title: 'name', detail: 'path' },
    page: '/provision/shares/{id}',
    list: {
      place: '/provision/shares',
      about: 'A file system that hosts mount over the network. Its rules say which hosts, its modes say who.',
      columns: [
        { field: 'name', words: 'Share', isWide: true },
        { field: 'fileServiceId', words: 'File service', as: 'name of' },
        { field: 'path', words: 'Path', as: 'identifier' },
        { field: 'rules', words: 'For', as: 'rules' },
        { field: 'protocols', words: 'Protocols', isFolded: true },
        { field: 'volumeId', words: 'On volume', as: 'name of', isFolded: true },
        { field: 'labels', words: 'Labels', isFolded: true },
        { field: 'usedBytes', words: 'Used', as: 'bytes' },
        { field: 'sizeBytes', words: 'Size', as: 'bytes' },
      ],
    },
  },
}
