/** @jest-environment jsdom */
import { packed } from '@/core/views'
import { screen, waitFor } from '@testing-library/react'
import { sampleDrive, sampleId, samplePool, sampleSystem, sampleVolume } from '@/core/estate/testing/samples'
import { blankIntent, intents } from '@/core/intents'
import { answering, choose, pass, shown, type Asked } from '../testing/browser'
import { keeping, samplePlan } from '../testing/samplePlan'
import { shapeTroubles } from './shapeTroubles'
import { CreatePool, IntentForm, PoolChoice, ProvisionVolume, RegisterSystem } from '.'

const volume = sampleVolume()
const groups = [
  { id: sampleId(60), name: 'ct-scans', revision: 1 },
  { id: sampleId(61), name: 'archive', revision: 1 },
]
const growing = { systemId: sampleId(1), poolId: sampleId(2), driveIds: [], roles: {}, ratePercent: 50 }
const network = { systemId: sampleId(1), nodes: [], origin: 'static', family: 'IPv4', vlan: null, mtu: 9000 }
const plans = () => answering(keeping(samplePlan({ suggestions: { name: 'ct-scans-01' } })))
/** What the form has last asked to have planned or kept. */
const last = (asked: readonly Asked[]) => asked.at(-1)?.body as { kind?: string; intent: object } | undefined

const withForms = intents.filter(each => each.form !== undefined)
const choices = {
  'host groups': groups.map(({ id, name }) => ({ value: id, words: name })),
  'names of host groups': groups.map(({ name }) => ({ value: name, words: name })),
}

/** Whether a field is asked for at the beginning. */
const isAsked = (
  onlyWhile: { readonly field: string; readonly is: string | readonly string[] } | undefined,
  start: Record<string, unknown>,
) =>
  onlyWhile === undefined ||
  (onlyWhile.is === 'filled' || onlyWhile.is === 'blank'
    ? ((start[onlyWhile.field] ?? '') === '') === (onlyWhile.is === 'blank')
    : [onlyWhile.is].flat().includes(String(start[onlyWhile.field])))

test.each(withForms.map(each => [each.kind, each] as const))(
  'the form of %s begins by being planned as it stands, and every field of it is one of the intent',
  async (kind, drafted) => {
    const { intentSchema, form } = drafted
    const start = blankIntent(drafted)
    const asked = plans()
    shown(<IntentForm kind={kind} title="It" begin={{}} name="photos-01" choices={choices} />)
    await waitFor(() => expect(last(asked)?.kind).toBe(kind))
    const fields = Object.keys((intentSchema as { properties: object }).properties)
    expect(Object.keys(last(asked)?.intent ?? {}).every(field => fields.includes(field))).toBe(true)
    for (const { field, label, as, onlyWhile } of form?.fields ?? []) {
      expect(fields).toContain(field)
      expect(screen.queryByText(label) === null).toBe(as === 'part' || !isAsked(onlyWhile, start))
    }
  },
)

test('what a draft is about is said by the page, and stays', async () => {
  const asked = plans()
  const { user } = shown(<IntentForm kind="rename-volume" title="Rename photos-01" begin={{ volumeId: volume.id }} />)
  await user.type(screen.getByLabelText('New name'), 'photos-02')
  await waitFor(() => expect(last(asked)?.intent).toEqual({ volumeId: volume.id, name: 'photos-02' }))
  await user.click(screen.getByRole('button', { name: /Rename/ }))
  expect(asked.at(-1)?.path).toBe('/api/v1/changes/c1/carry-out')
})

test('a name that has to be typed stands beside its field, and is not filled in', () => {
  plans()
  shown(<IntentForm kind="remove-volume" title="It" begin={{ volumeId: volume.id }} name="photos-01" />)
  expect(screen.getByText('photos-01')).toBeTruthy()
  expect(screen.getByLabelText<HTMLInputElement>(/Its name/).value).toBe('')
})

test('a reason takes several lines, and a day is a day', async () => {
  const asked = plans()
  const { user } = shown(
    <IntentForm kind="sign-exception" title="It" begin={{ findingKey: 'clock-off/n', findingTitle: 't' }} />,
  )
  await user.type(screen.getByLabelText('Why it may stand'), 'The part is{Enter}on its way.')
  await user.type(screen.getByLabelText('Until'), '2026-12-24')
  await waitFor(() =>
    expect(last(asked)?.intent).toEqual({
      findingKey: 'clock-off/n',
      findingTitle: 't',
      reason: 'The part is\non its way.',
      until: '2026-12-24',
    }),
  )
})

test('what is no kind of change has no form', () => {
  plans()
  shown(<IntentForm kind="make-coffee" title="It" begin={{}} />)
  expect(screen.queryByText('It')).toBeNull()
})

test('what is not of its shape is told at its field and not sent; it is sent once it is mended', async () => {
  const asked = plans()
  const about = { systemId: sampleId(1), switchPortId: sampleId(2), mtu: 1500, vlans: [30] }
  const { user } = shown(<IntentForm kind="set-switch-port" title="It" begin={about} />)
  await waitFor(() => expect(last(asked)?.intent).toEqual(about))
  const field = screen.getByLabelText<HTMLInputElement>('VLANs')
  await user.type(field, ', x')
  await waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'))
  expect(document.getElementById(field.getAttribute('aria-describedby') ?? '')?.textContent).toContain('whole number')
  await pass(200)
  expect(asked).toHaveLength(1)
  expect(screen.getByRole<HTMLButtonElement>('button', { name: /Carry out/ }).disabled).toBe(true)
  await user.type(field, '{Backspace}31')
  await waitFor(() => expect(last(asked)?.intent).toEqual({ ...about, vlans: [30, 31] }))
  expect(field.getAttribute('aria-invalid')).toBe('false')
  await user.clear(screen.getByLabelText('MTU'))
  await user.type(screen.getByLabelText('MTU'), '9000')
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ mtu: 9000 }))
})

test.each([
  ['rename-volume', { volumeId: volume.id, name: 'x'.repeat(256) }, { name: 'It has at most 255 characters.' }],
  ['grow-cluster', { ...growing, ratePercent: 4 }, { ratePercent: 'Give 5 or more.' }],
  ['grow-cluster', { ...growing, ratePercent: 101 }, { ratePercent: 'Give 100 or less.' }],
  ['set-storage-network', { ...network, vlan: 'x' }, { vlan: 'Give a whole number.' }],
  ['set-storage-network', { ...network, nodes: [{ nodeId: 'x' }] }, { nodes: expect.any(String) as string }],
  ['shrink-cluster', { ...growing, poolId: '' }, { poolId: 'Choose one.' }],
  ['rename-volume', { volumeId: '', name: '' }, {}],
  ['make-coffee', {}, {}],
] as const)('the shape of %s: %j has %j', async (kind, intent, troubles) => {
  expect(await shapeTroubles(kind, intent)).toMatchObject(troubles)
})

const schedule = {
  ...{ headroomPercent: null, snapshotRule: '', timeZone: 'UTC', keepLast: null, hourly: null, daily: null },
  ...{ weekly: null, monthly: null, yearly: null, holdingDays: null },
}

test('what may be a part of a number stands as it is typed until it is one; what has to be whole says so', async () => {
  const asked = plans()
  const begin = { classId: '', name: 'Quick', lossesSurvived: null, media: 'any', latencyMilliseconds: null }
  const { user } = shown(
    <IntentForm kind="define-class" title="It" begin={{ ...schedule, ...begin }} choices={choices} />,
  )
  const latency = screen.getByLabelText<HTMLInputElement>('95 of 100 minutes within, ms')
  await user.type(latency, '1.')
  await waitFor(() => expect(screen.getByText(/Give a number, such as 0\.5\./)).toBeTruthy())
  await user.type(latency, '05')
  expect(latency.value).toBe('1.05')
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ latencyMilliseconds: 1.05 }))
  await user.type(screen.getByLabelText('Survives losses'), '1.5')
  await waitFor(() => expect(screen.getByText(/Give a whole number\./)).toBeTruthy())
})

test('a volume is mapped to the group that is chosen', async () => {
  const asked = plans()
  const { user } = shown(<IntentForm kind="map-volume" title="It" begin={{ volumeId: volume.id }} choices={choices} />)
  await choose(user, screen.getByLabelText('Host group'), 'archive')
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ hostGroupId: sampleId(61) }))
})

test('a size is echoed in the other family of units, and what is no size is not', async () => {
  const asked = plans()
  const { user } = shown(<IntentForm kind="expand-volume" title="It" begin={{ volumeId: volume.id }} />)
  expect(screen.getByText(/more than it has now/)).toBeTruthy()
  await user.type(screen.getByLabelText('New size'), '2 TiB')
  expect(screen.getByText('2 TiB = 2.2 TB')).toBeTruthy()
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ size: '2 TiB' }))
  await user.clear(screen.getByLabelText('New size'))
  await user.type(screen.getByLabelText('New size'), '2 pints')
  expect(screen.queryByText(/ = /)).toBeNull()
})

test('groups are given back and taken away one by one', async () => {
  const asked = plans()
  const { user } = shown(
    <IntentForm kind="bring-back-volume" title="It" begin={{ volumeId: volume.id }} choices={choices} />,
  )
  await user.click(screen.getByLabelText('archive'))
  await user.click(screen.getByLabelText('ct-scans'))
  await user.click(screen.getByLabelText('archive'))
  await waitFor(() => expect(last(asked)?.intent).toEqual({ volumeId: volume.id, groupNames: ['ct-scans'] }))
})

test('a volume is drafted for a group, from a pool of which one sees what is left', async () => {
  const asked = plans()
  const pool = {
    ...samplePool({ usableBytes: 10n << 40n, writtenBytes: 4n << 40n, state: 'degraded' }),
    systemName: 'heron',
  }
  const { user } = shown(<ProvisionVolume classes={[]} pools={[pool]} groups={groups} />)
  await choose(user, screen.getByLabelText('Pool'), 'bulk on heron: 6 TiB left, 0% promised, degraded')
  await choose(user, screen.getByLabelText('Host group'), 'ct-scans')
  await user.type(screen.getByLabelText('Purpose'), 'kiln')
  await user.type(screen.getByLabelText('Size'), '500 GiB')
  await user.click(screen.getByRole('radio', { name: /thick/ }))
  await user.click(await screen.findByRole('button', { name: 'Use ct-scans-01' }))
  await waitFor(() =>
    expect(last(asked)?.intent).toEqual({
      classId: '',
      name: 'ct-scans-01',
      purpose: 'kiln',
      size: '500 GiB',
      poolId: pool.id,
      isThin: false,
      hostGroupId: sampleId(60),
    }),
  )
})

test('drives of a pool are taken by kind; broken and used ones are not offered', async () => {
  const asked = plans()
  const drives = [
    sampleDrive(1),
    sampleDrive(2),
    sampleDrive(3, { state: 'failed' }),
    sampleDrive(4, { role: 'data', poolId: sampleId(9) }),
    sampleDrive(5, { media: 'HDD', protocol: 'SAS' }),
  ]
  const { user } = shown(
    <PoolChoice isOpen initial={[]}>
      <CreatePool system={sampleSystem()} drives={packed(drives)} />
    </PoolChoice>,
  )
  await user.click(screen.getByRole('button', { name: 'Take all 2' }))
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ driveIds: [drives[0]?.id, drives[1]?.id] }))
  await user.click(screen.getByRole('button', { name: 'Take all 1' }))
  await user.click(screen.getByRole('radio', { name: 'mirror 2' }))
  await waitFor(() =>
    expect(last(asked)?.intent).toMatchObject({
      driveIds: [drives[0]?.id, drives[1]?.id, drives[4]?.id],
      scheme: { kind: 'mirror', copies: 2 },
    }),
  )
  await user.click(screen.getAllByRole('button', { name: 'Take none' })[0] as HTMLElement)
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ driveIds: [drives[4]?.id] }))
})

const identity = {
  address: 'https://array.example',
  isEncrypted: true,
  certificateFingerprint: 'AB:CD',
  certificateTrouble: 'self-signed',
  maker: 'Tallis',
  model: 'M-210',
  uuid: null,
  redfishVersion: '1.15.0',
}
const found = {
  ...identity,
  id: sampleId(77),
  serial: 'S1',
  firmware: null,
  controllers: 2,
  enclosures: 1,
  pools: 0,
  volumes: 0,
  drives: [{ words: '8 TB NVMe', count: 12, bytes: '96000000000000' }],
}
const system = (seen: object) => (asked: Asked) =>
  asked.path === '/api/v1/identities'
    ? { body: { ...identity, ...seen } }
    : asked.path === '/api/v1/probes'
      ? { body: found }
      : keeping(samplePlan())(asked)

test('no password is asked for before the certificate was accepted, and then that very one is named', async () => {
  const asked = answering(system({}))
  const { user } = shown(<RegisterSystem sites={[{ id: sampleId(5), name: 'east', revision: 1 }]} />)
  expect(screen.queryByLabelText('Password')).toBeNull()
  await user.type(screen.getByLabelText('Management address'), 'array.example')
  await user.click(screen.getByRole('button', { name: 'See who answers' }))
  const password = await screen.findByLabelText<HTMLInputElement>('Password')
  expect(password.disabled).toBe(true)
  await user.click(screen.getByLabelText(/Accept this certificate/))
  expect(password.disabled).toBe(false)
  await user.type(screen.getByLabelText('Name on the system'), 'admin')
  await user.type(password, 'secret')
  await user.click(screen.getByRole('button', { name: 'Look at it' }))
  expect(await screen.findByText(/12 × 8 TB NVMe/)).toBeTruthy()
  expect(asked.find(each => each.path === '/api/v1/probes')?.body).toEqual({
    address: 'https://array.example',
    userName: 'admin',
    password: 'secret',
    isPlainHttpAccepted: false,
    acceptedFingerprint: 'AB:CD',
  })
  await choose(user, screen.getByLabelText('Site'), 'east')
  await waitFor(() => expect(last(asked)?.intent).toMatchObject({ probeId: sampleId(77), siteId: sampleId(5) }))
  // No draft ever carries what was typed to get in.
  expect(JSON.stringify(asked.filter(each => each.path !== '/api/v1/probes'))).not.toContain('secret')
})

test('plain HTTP is accepted by its own word; another address is another system, and nothing of the first holds', async () => {
  answering(system({ isEncrypted: false, certificateFingerprint: null, certificateTrouble: null }))
  const { user } = shown(<RegisterSystem sites={[]} />)
  await user.type(screen.getByLabelText('Management address'), 'array.example{Enter}')
  await user.click(await screen.findByLabelText(/Accept plain HTTP/))
  expect(screen.getByLabelText<HTMLInputElement>('Password').disabled).toBe(false)
  await user.type(screen.getByLabelText('Management address'), '2')
  expect(screen.queryByLabelText('Password')).toBeNull()
  await user.click(screen.getByRole('button', { name: 'See who answers' }))
  expect((await screen.findByLabelText(/Accept plain HTTP/)).getAttribute('aria-checked')).toBe('false')
})

test('a system that refuses is told with its reason, and the address stays', async () => {
  const why = { code: 'redfish.refused', what: 'It did not let us in.', why: 'The password is wrong.', remedy: 'r' }
  answering(asked =>
    asked.path === '/api/v1/probes' ? { status: 422, body: why } : system({ certificateTrouble: null })(asked),
  )
  const { user } = shown(<RegisterSystem sites={[]} />)
  await user.type(screen.getByLabelText('Management address'), 'array.example{Enter}')
  await user.type(await screen.findByLabelText('Name on the system'), 'admin')
  await user.type(screen.getByLabelText('Password'), 'wrong{Enter}')
  expect((await screen.findByRole('alert')).textContent).toContain('The password is wrong.')
  expect(screen.queryByText('What was found')).toBeNull()
  await pass(150)
  expect(screen.getByLabelText<HTMLInputElement>('Management address').value).toBe('array.example')
})
