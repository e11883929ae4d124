import type { Connection } from '../Connection'
import type { ServiceMap } from '../service/serviceMap'
import { readFiles } from './read'

const link = (at: string) => ({ '@odata.id': at })
const rule = { Client: '*', Access: 'ro', Squash: 'all', AnonymousUid: 1, AnonymousGid: 1, Flavours: ['sys'] }
const own = { Mirefield: { ExportRules: [rule], Root: { Uid: 1, Gid: 2, Mode: '0750' } } }
const share = (id: string, more: object = {}) => ({
  ...link(`/fs/1/shares/${id}`),
  ...{ Name: id, FileSharePath: `/${id}`, FileSharingProtocols: ['NFSv4_2', 'SMBv3_1'] },
  Links: { Oem: { FileService: link('/services/1') } },
  Oem: own,
  ...more,
})

/** What is read of a system whose only file system has these shares. */
async function readOf(shares: readonly object[]) {
  const skipped: string[] = []
  const fileSystem = {
    ...link('/fs/1'),
    Name: 'fs',
    CapacitySources: [{ ProvidingVolumes: { Members: [link('/volumes/1')] } }],
    Capacity: { Data: { ConsumedBytes: 7, ProvisionedBytes: 9 } },
    ExportedShares: link('/fs/1/shares'),
  }
  const connection = {
    members: async (path: string) => (path === '/fs' ? [fileSystem] : path === '/fs/1/shares' ? shares : []),
    skip: (locator: string) => skipped.push(locator),
  } as unknown as Connection
  const map = { fileServices: '/services', fileSystems: '/fs' } as ServiceMap
  return { ...(await readFiles(connection, map)), skipped }
}

test('a share is read with its rules, its root and its room; protocols that nobody here knows are left out', async () => {
  const { shares, skipped } = await readOf([share('a')])
  expect(shares).toMatchObject([
    {
      ...{ name: 'a', path: '/a', volumeLocator: '/volumes/1', fileServiceLocator: '/services/1', mode: '0750' },
      ...{ protocols: ['NFSv4_2'], ownerUid: 1, ownerGid: 2, sizeBytes: 9n, usedBytes: 7n, quotas: [], fileRules: [] },
      rules: [{ client: '*', access: 'ro', squash: 'all', anonUid: 1, anonGid: 1, flavours: ['sys'] }],
    },
  ])
  expect(skipped).toEqual([])
})

test('grants are read of the share and of its whole service, each in its place', async () => {
  const [mine, all] = [
    { Who: 'u-1', Name: 'Alva', Right: 'read' },
    { Who: '*', Right: 'none' },
  ]
  const granted = { Mirefield: { ...own.Mirefield, Grants: [mine], ServiceGrants: [all] } }
  expect((await readOf([share('a', { Oem: granted })])).shares).toMatchObject([
    { grants: [{ who: 'u-1', name: 'Alva', right: 'read' }], serviceGrants: [{ who: '*', name: '', right: 'none' }] },
  ])
})

test.each([
  ['no file service', { Links: {} }],
  ['no rules', { Oem: undefined }],
  ['a maker that nobody knows', { Oem: { Elsewhere: own.Mirefield } }],
  ['rules in another shape', { Oem: { Mirefield: { ...own.Mirefield, ExportRules: [{ Client: '*' }] } } }],
  [
    'grants of its service in another shape',
    { Oem: { Mirefield: { ...own.Mirefield, ServiceGrants: [{ Who: '*' }] } } },
  ],
  ['a mode that is none', { Oem: { Mirefield: { ...own.Mirefield, Root: { Uid: 1, Gid: 2, Mode: '999' } } } }],
])('a share with %s is told of, never taken for one that nobody or everybody may use', async (_, more) => {
  const { shares, skipped } = await readOf([share('bad', more), share('good')])
  expect([shares.map(({ name }) => name), skipped]).toEqual([['good'], ['/fs/1/shares/bad']])
})
