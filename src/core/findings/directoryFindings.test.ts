import type { Directory } from '../estate'
import { sampleFileService, sampleId, samplePrincipal, sampleShare } from '../estate/testing/samples'
import { directoryFindings } from '.'

const directory: Directory = {
  ...{
    id: sampleId(89),
    name: 'museum',
    address: 'ldaps://d',
    fingerprint: 'AA',
    baseDn: 'dc=Example',
    readAs: 'cn=r',
  },
  ...{ state: 'answering', stateWhy: null, readAt: null, personCount: 1, groupCount: 1, revision: 1 },
  certificateEndsAt: null,
}
const service = sampleFileService({ joinedTo: 'dc=example' })
const share = sampleShare({
  grants: [
    { who: 'me', name: 'Alva', right: 'read' },
    { who: '*', name: 'everybody', right: 'read' },
  ],
})
const now = new Date('2026-11-01T00:00:00.000Z')
type Asked = Parameters<typeof directoryFindings> extends readonly [...infer Before, Date] ? Before : never
const found = (...asked: Asked) => directoryFindings(...asked, now)
const checks = (...asked: Asked) => found(...asked).map(({ check, gravity }) => [check, gravity])

test('where the directory answers and has everybody, nothing is found; a service that has joined none needs none', () => {
  expect(checks([service], [share], [directory], [samplePrincipal()])).toEqual([])
  expect(checks([sampleFileService()], [share], [], [])).toEqual([])
})

test('a directory that does not answer, and one that nobody has registered, are told with what they put at risk', () => {
  const silent: Directory = { ...directory, state: 'not answering', stateWhy: 'It did not answer in time.' }
  const [first] = found([service], [share], [silent], [])
  expect(first).toMatchObject({ check: 'directory-silent', gravity: 'soon', evidence: 'It did not answer in time.' })
  expect(first?.risk).toContain('refused at scans')
  expect(found([service], [], [silent], [])[0]?.risk).toBe('Nothing is shared over SMB yet.')
  expect(checks([service], [share], [], [])).toEqual([['directory-unknown', 'note']])
})

test('a grant for whom there is nobody any more is told, with a draft without it', () => {
  const gone = samplePrincipal({ goneSince: '2026-10-01T00:00:00.000Z' })
  expect(checks([service], [share], [directory], [samplePrincipal({ id: sampleId(92) }), gone])).toEqual([])
  const [first] = found([service], [share], [directory], [gone])
  expect(first?.check).toBe('grant-gone')
  expect(first?.draft?.intent).toMatchObject({ grants: [{ who: '*' }], mode: share.mode })
})

test('the same of those for all shares of a service, once and not share by share', () => {
  const gone = samplePrincipal({ goneSince: '2026-10-01T00:00:00.000Z' })
  const all = { ...service, grants: share.grants }
  const beneath = sampleShare({ grants: [], serviceGrants: share.grants })
  const told = found([all], [beneath], [directory], [gone])
  expect(told.map(({ key }) => key)).toEqual([`grant-gone/${service.id}`])
  expect(told[0]?.draft).toMatchObject({ kind: 'set-service-grants', intent: { grants: [{ who: '*' }] } })
})

test('a certificate by which people sign in is told of a month before it ends, beside what else is wrong', () => {
  const until = (certificateEndsAt: string) => ({ ...directory, certificateEndsAt })
  const [ending] = found([service], [share], [until('2026-11-20T12:00:00.000Z')], [samplePrincipal()])
  expect(ending).toMatchObject({ check: 'certificate-ends', gravity: 'soon' })
  expect(ending?.title).toMatch(/museum, by which people sign in to .*, ends on 2026-11-20/)
  expect(checks([service], [share], [until('2026-12-20T00:00:00.000Z')], [samplePrincipal()])).toEqual([])
  const over = { ...until('2026-10-31T00:00:00.000Z'), state: 'not answering' as const }
  expect(checks([service], [share], [over], [samplePrincipal()])).toEqual([
    ['certificate-ends', 'now'],
    ['directory-silent', 'soon'],
  ])
})
