import type { NameAnswer } from '../estate'
import { sampleFileService, sampleShare } from '../estate/testing/samples'
import { newRule } from '../access'
import { fileFindings } from '.'

const service = sampleFileService()
const share = sampleShare({
  sizeBytes: 100n,
  usedBytes: 10n,
  rules: [{ ...newRule, client: '10.0.0.0/24', flavours: ['sys'] }],
})
const at = '2026-01-01T00:00:00Z'
const answer = (kind: NameAnswer['kind'], query: string, answers: string[]): NameAnswer => ({
  kind,
  query,
  answers,
  at,
  why: null,
})
const standsOn = (unit: string | null) => ({
  ...service,
  instances: service.instances.map((each, index) => (index === 0 ? { ...each, standsOn: unit } : each)),
})
const checks = (all: ReturnType<typeof fileFindings>) => all.map(({ check, gravity }) => [check, gravity])

test('nothing is wrong where each unit answers, names lead to each other and there is room', () => {
  const answers = [
    answer('forward', 'files.example', ['10.0.0.1', '10.0.0.2']),
    answer('reverse', '10.0.0.1', ['files.example']),
    answer('reverse', '10.0.0.2', ['files.example']),
  ]
  expect(fileFindings([service], [share], answers)).toEqual([])
  expect(fileFindings([service], [share], [])).toEqual([])
})

test('an address that is answered elsewhere, or nowhere, says who waits for it', () => {
  expect(checks(fileFindings([standsOn('B')], [share], []))).toEqual([['file-address-moved', 'soon']])
  const [silent] = fileFindings([standsOn(null)], [share], [])
  expect([silent?.gravity, silent?.risk]).toEqual([
    'now',
    'Hosts that have mounted scans by it wait until it answers again.',
  ])
})

test('a name that leads elsewhere is told with what the name server said', () => {
  const answers = [answer('forward', 'files.example', ['10.0.0.9']), answer('reverse', '10.0.0.1', ['files.example'])]
  expect(fileFindings([service], [], answers)).toMatchObject([
    { check: 'file-name', evidence: 'files.example leads to 10.0.0.9, not to 10.0.0.1.' },
  ])
})

test.each([
  [89n, []],
  [90n, [['share-full', 'soon']]],
  [98n, [['share-full', 'now']]],
] as const)('a share with %s of 100 bytes used', (usedBytes, expected) =>
  expect(checks(fileFindings([], [{ ...share, usedBytes }], []))).toEqual(expected),
)

test('a share is warned of from where somebody has said, and is grave only once it is nearly full', () => {
  const early = { ...share, usedBytes: 60n, warnPercent: 60 }
  const [finding] = fileFindings([], [early], [])
  expect(finding).toMatchObject({ gravity: 'soon', evidence: expect.stringContaining('warned of from 60% on') })
  expect(fileFindings([], [{ ...early, usedBytes: 59n }], [])).toEqual([])
  expect(fileFindings([], [{ ...early, usedBytes: 95n, warnPercent: 99 }], [])).toEqual([])
})

test('rules that nobody meets come with a draft without them', () => {
  const rules = [
    ...share.rules,
    { ...newRule, client: '10.0.0.0/24', access: 'rw' as const, flavours: ['sys' as const] },
  ]
  const [finding] = fileFindings([], [{ ...share, rules }], [])
  expect(finding).toMatchObject({
    check: 'rule-never-reached',
    gravity: 'note',
    draft: { kind: 'set-share-rights', intent: { rules: share.rules } },
  })
})
