import { execFileSync } from 'node:child_process'
import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { ownEstate } from './estate'
import { withHeron } from './prepare'
import { address, fleet, signIn } from './steps'

test.describe.configure({ mode: 'serial' })

interface Followed {
  readonly change: { readonly state: string; readonly stands: string | null }
  readonly journal: readonly { readonly event: string; readonly stepIndex: number; readonly doneRatio: number | null }[]
}

const data = () => ownEstate().data
const pidOf = (name: string) => Number(readFileSync(join(data(), 'logs', `${name}.pid`), 'utf8'))

async function follow(request: APIRequestContext, id: string): Promise<Followed | undefined> {
  return request.get(`${address()}/api/v1/changes/${id}`).then(
    async answer => (answer.ok() ? ((await answer.json()) as Followed) : undefined),
    () => undefined, // the web process is being started again
  )
}

/** Drafts a pool of six free drives of heron and sets it running; @returns the change's id */
async function buildPool(request: APIRequestContext, name: string): Promise<string> {
  const { items: systems } = (await (await request.get(`${address()}/api/v1/systems`)).json()) as {
    items: { id: string; name: string }[]
  }
  const heron = systems.find(system => system.name === 'heron')
  const { items: drives } = (await (await request.get(`${address()}/api/v1/drives?systemId=${heron?.id}`)).json()) as {
    items: { id: string; role: string }[]
  }
  const free = drives.filter(drive => drive.role === 'unassigned').slice(0, 6)
  const intent = {
    systemId: heron?.id,
    name,
    driveIds: free.map(drive => drive.id),
    scheme: { kind: 'parity', parityDrives: 2 },
    maxGroupDrives: 12,
    spareCount: 0,
    snapshotSharePercent: 0,
  }
  const draft = (await (
    await request.post(`${address()}/api/v1/changes`, { data: { kind: 'create-pool', intent } })
  ).json()) as { id: string; planDigest: string }
  expect(
    (
      await request.post(`${address()}/api/v1/changes/${draft.id}/carry-out`, {
        data: { planDigest: draft.planDigest },
      })
    ).status(),
  ).toBe(202)
  await expect
    .poll(async () => (await follow(request, draft.id))?.journal.some(entry => entry.event === 'progress'), {
      timeout: 60_000,
    })
    .toBe(true)
  return draft.id
}

for (const name of ['worker', 'standins', 'web'] as const) {
  test(`${name} killed in the middle of a change: it ends right, and nothing is made twice`, async ({ request }) => {
    await withHeron(request)
    await fleet('rate', '200')
    const pool = `killed-${name}`
    const id = await buildPool(request, pool)
    const before = pidOf(name)
    process.kill(before, 'SIGKILL')
    await expect.poll(() => pidOf(name)).not.toBe(before)
    await expect.poll(() => follow(request, id).then(followed => followed?.change.state)).toBe('running')
    await expect(() => fleet('rate', '3600')).toPass({ timeout: 60_000 })
    await expect.poll(async () => (await follow(request, id))?.change.state, { timeout: 180_000 }).toBe('proven')
    const { items: pools } = (await (await request.get(`${address()}/api/v1/pools`)).json()) as {
      items: { id: string; name: string; systemId: string }[]
    }
    const made = pools.filter(each => each.name === pool)
    expect(made).toHaveLength(1)
    expect(
      (await follow(request, id))?.journal.filter(entry => entry.event === 'begun').map(entry => entry.stepIndex),
    ).toEqual([0, 1])
    const removal = { kind: 'remove-pool', intent: { systemId: made[0]?.systemId, poolId: made[0]?.id } }
    const draft = (await (await request.post(`${address()}/api/v1/changes`, { data: removal })).json()) as {
      id: string
      planDigest: string
    }
    expect(
      (
        await request.post(`${address()}/api/v1/changes/${draft.id}/carry-out`, {
          data: { planDigest: draft.planDigest },
        })
      ).status(),
    ).toBe(202)
    await expect.poll(async () => (await follow(request, draft.id))?.change.state).toBe('proven')
  })
}

test('the database gone for a while: what is typed stays, and is kept when it is back', async ({ page, request }) => {
  await withHeron(request)
  await signIn(page)
  await fleet('rate', '200')
  const id = await buildPool(request, 'database-away')
  await page.goto(`${address()}/provision?draft=provision-volume`)
  await page.getByLabel('Purpose').fill('before')
  await expect(page.getByText('kept as a draft')).toBeVisible()
  const cluster = existsSync(join(data(), 'cluster-folder'))
    ? readFileSync(join(data(), 'cluster-folder'), 'utf8')
    : data()
  const server = Number(readFileSync(join(cluster, 'postgres', 'postmaster.pid'), 'utf8').split('\n')[0])
  execFileSync('kill', ['-9', `${server}`])
  await page.getByLabel('Purpose').fill('while it was away')
  // A page that is read anew just then cannot be shown; it comes by itself as soon as the records are back, with what was typed.
  await page.reload()
  await expect(page.getByLabel('Purpose')).toHaveValue('while it was away')
  await expect(page.getByText(/kept as a draft/)).toBeVisible()
  await expect.poll(async () => (await follow(request, id))?.change.state).toBe('running')
  await fleet('rate', '3600')
  await expect.poll(async () => (await follow(request, id))?.change.state, { timeout: 180_000 }).toBe('proven')
  await expect(page.getByRole('complementary').getByRole('alert')).toBeHidden()
  await page.reload()
  await expect(page.getByLabel('Purpose')).toHaveValue('while it was away')
})
