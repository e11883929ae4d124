import type { Plan } from '@/core/plan'
import { standingFindings } from '@/records/queries'
import { workbench } from './testing/workbench'

let bench: Awaited<ReturnType<typeof workbench>>
let systemId = ''
beforeAll(async () => {
  bench = await workbench(60)
  systemId = await bench.registered('godwit')
})
afterAll(() => bench.close())

const check = (plan: Plan, rule: string) => plan.checks.find(each => each.rule === rule)
const findings = async () =>
  (await standingFindings({ database: bench.database }, systemId)).map(each => each.finding.check)

test('a catalogue is imported from a file, or refused with the place of the fault; newer firmware is found', async () => {
  const entry = {
    component: 'node',
    model: 'M-210',
    version: '2.5.0',
    releasedAt: '2026-09-01T00:00:00Z',
    isUrgent: false,
    notes: 'Corrects a restart.',
  }
  const file = {
    format: 'wendrel-firmware-catalogue-1',
    maker: 'Mirefield',
    issuedAt: '2026-10-01T00:00:00Z',
    entries: [entry],
  }
  const strange = await bench.drafted('import-catalogue', {
    text: JSON.stringify({ ...file, entries: [{ ...entry, severty: 'high' }] }),
  })
  expect(check(strange.plan, 'format')).toMatchObject({
    holds: false,
    why: 'In entries.0: must NOT have additional properties: "severty".',
  })
  expect(check((await bench.drafted('import-catalogue', { text: '{' })).plan, 'format')).toMatchObject({
    holds: false,
    why: 'The file is not JSON.',
  })
  expect(await bench.carriedOut('import-catalogue', { text: JSON.stringify(file) })).toMatchObject({ state: 'proven' })
  await bench.until(async () => (await findings()).includes('newer-firmware'), 'newer firmware is found')
})

test('an exception is signed until a day, covers its finding, and needs a reason', async () => {
  const [newer] = (await standingFindings({ database: bench.database }, systemId)).filter(
    each => each.finding.check === 'newer-firmware',
  )
  const intent = {
    findingKey: newer?.finding.key ?? '',
    findingTitle: newer?.finding.title ?? '',
    reason: 'short',
    until: '2020-01-01',
  }
  const bad = await bench.drafted('sign-exception', intent)
  expect([check(bad.plan, 'reason')?.holds, check(bad.plan, 'until')?.why]).toEqual([false, 'That day is over.'])
  const until = new Date(Date.now() + 120 * 86_400_000).toISOString().slice(0, 10)
  const now = (await bench.estate()).settings
  expect(now.nameServer).not.toBe('')
  const signed = await bench.carriedOut('sign-exception', {
    ...intent,
    reason: 'The next service is in two weeks.',
    until,
  })
  expect(signed).toMatchObject({ state: 'proven' })
  const after = (await standingFindings({ database: bench.database }, systemId)).find(
    each => each.finding.key === intent.findingKey,
  )
  expect(after?.exception).toMatchObject({ reason: 'The next service is in two weeks.', signedBy: 'tester' })
})
