import { readdirSync } from 'node:fs'
import { join, relative, resolve } from 'node:path'
import { expect, test, type APIRequestContext } from '@playwright/test'
import { withHeron } from './prepare'
import { address, administrator, comeIn, isAccessible, margin, signIn } from './steps'

test.describe.configure({ mode: 'serial' })

const app = resolve(import.meta.dirname, '../src/app')
/** Every page that the application has, by the folders that Next routes by; new ones are found by themselves. */
function pages(folder = app): string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap(entry => {
    if (entry.isDirectory()) return pages(join(folder, entry.name))
    if (entry.name !== 'page.tsx') return []
    return [`/${relative(app, folder)}`.replace(/\/\([^)]+\)/g, '') || '/']
  })
}
const open = new Set(['/sign-in', '/welcome'])
const forms: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  document: {},
  RSC: { RSC: '1' },
  prefetch: { RSC: '1', 'Next-Router-Prefetch': '1' },
  'segment prefetch': { RSC: '1', 'Next-Router-Prefetch': '1', 'Next-Router-Segment-Prefetch': '/_tree' },
  action: { 'Next-Action': '0'.repeat(42), Accept: 'text/x-component' },
}

interface Known {
  readonly words: readonly string[]
  readonly ids: Readonly<Record<string, string>>
}
/** Words that only who is signed in may read, and an id for each path that takes one. */
async function known(request: APIRequestContext): Promise<Known> {
  const items = async (path: string) =>
    ((await (await request.get(`${address()}/api/v1${path}`)).json()) as { items: Record<string, string>[] }).items
  const [systems, drives, hosts, changes] = await Promise.all(['/systems', '/drives', '/hosts', '/changes'].map(items))
  const words = [
    ...(systems ?? []).flatMap(system => [system['name'], system['serial'], system['uuid']]),
    ...(drives ?? []).slice(0, 40).map(drive => drive['serial']),
    ...(hosts ?? []).map(host => host['name']),
  ]
  return {
    words: words.filter(word => word !== undefined && word.length > 4) as string[],
    ids: { systems: systems?.[0]?.['id'] ?? '', changes: changes?.[0]?.['id'] ?? '' },
  }
}
const filled = (path: string, { ids }: Known) =>
  path.replace(/([a-z]+)\/(\[id\]|\{id\})/g, (_, of: string) => `${of}/${ids[of] ?? ids['changes'] ?? ''}`)

test('no page, in whatever form it is asked for, tells a stranger anything', async ({ request, playwright }) => {
  await withHeron(request)
  const secrets = await known(request)
  expect(secrets.words.length).toBeGreaterThan(20)
  const stranger = await playwright.request.newContext({ baseURL: address() })
  const all = pages()
  expect(all.length).toBeGreaterThan(11)
  for (const page of all) {
    for (const [form, headers] of Object.entries(forms)) {
      for (const method of form === 'action' ? ['POST'] : ['GET', 'HEAD']) {
        const what = `${method} ${page} as ${form}`
        const answer = await stranger.fetch(filled(page, secrets), { method, headers, maxRedirects: 0 })
        const body = await answer.text()
        expect(
          secrets.words.filter(word => body.includes(word)),
          what,
        ).toEqual([])
        if (!open.has(page) && method === 'GET' && form === 'document') expect(answer.status(), what).toBe(307)
        expect(answer.headers()['content-security-policy'], what).toContain("frame-ancestors 'none'")
      }
    }
  }
})

test('no operation of the API answers a stranger but those that have to, and every wrong method is told', async ({
  request,
  playwright,
}) => {
  await withHeron(request)
  const secrets = await known(request)
  const stranger = await playwright.request.newContext({ baseURL: address() })
  const document = (await (await stranger.get('/api/v1/openapi.json')).json()) as {
    paths: Record<string, Record<string, { operationId: string; security?: unknown[] }>>
  }
  for (const [path, methods] of Object.entries(document.paths)) {
    const at = `/api/v1${filled(path, secrets)}`
    for (const [method, { operationId, security }] of Object.entries(methods)) {
      const headers = { 'Content-Type': 'application/json' }
      const answer = await stranger.fetch(at, { method, headers, ...(method === 'get' ? {} : { data: '{}' }) })
      if (security === undefined) expect(answer.status(), operationId).toBe(401)
      const body = await answer.text()
      expect(
        secrets.words.filter(word => body.includes(word)),
        operationId,
      ).toEqual([])
      expect(answer.headers()['content-security-policy']).toContain("default-src 'none'")
    }
    for (const method of ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'].filter(
      each => methods[each.toLowerCase()] === undefined,
    )) {
      const answer = await request.fetch(`${address()}${at}`, { method })
      expect([answer.status(), ((await answer.json()) as { code: string }).code], `${method} ${path}`).toEqual([
        405,
        'api.wrong-method',
      ])
      expect(answer.headers()['allow']).toContain('OPTIONS')
    }
  }
  for (const path of ['/api', '/api/v1', '/api/v2/systems', '/api/v1/systems/x/y/z', '/api/v1/nothing']) {
    const answer = await stranger.get(path)
    expect([answer.status(), answer.headers()['content-type']], path).toEqual([404, 'application/json'])
  }
})

test('what is typed into addresses never reaches the database, and no answer carries its words', async ({
  request,
}) => {
  await withHeron(request)
  const bad = [
    '------------------------------------',
    "' or 1=1 --",
    '%00',
    '99999999999999999999',
    '%F0%90',
    'ä'.repeat(400),
  ]
  for (const text of bad) {
    for (const path of [
      `/api/v1/volumes?poolId=${text}`,
      `/api/v1/volumes?filter=${text}`,
      `/api/v1/volumes/${text}`,
      `/api/v1/changes/${text}`,
      `/api/v1/changes?before=${text}`,
      `/api/v1/search?text=${text}`,
      `/api/v1/findings?systemId=${text}`,
      `/provision?filter=${text}&sel=${text}&poolId=${text}`,
      `/build/systems/${text}?drive=${text}`,
      `/changes?before=${text}`,
      `/changes/${text}`,
      `/account/record?before=${text}`,
    ]) {
      const answer = await request.get(`${address()}${path}`)
      const body = await answer.text()
      expect([200, 400, 404], `${path}: ${body.slice(0, 200)}`).toContain(answer.status())
      // Names of scripts and styles are sums of them, and may hold any letters.
      const words = body.replaceAll(/_next\/static\/[^"\\]*/g, '')
      expect(words, path).not.toMatch(/syntax error|invalid input|SequelizeDatabase|violates|pg_/i)
    }
  }
})

test('who comes in leaves the session before behind; a page that is open ends with its session', async ({
  browser,
}) => {
  const context = await browser.newContext()
  const page = await context.newPage()
  const faults: string[] = []
  page.on('console', message => {
    if (/Content Security Policy|Refused to/.test(message.text())) faults.push(message.text())
  })
  await page.goto(`${address()}/sign-in?to=/%5Cevil.example`)
  await comeIn(page)
  expect(page.url()).toBe(`${address()}/`)
  const cookieOf = async () => (await context.cookies()).find(cookie => cookie.name === 'wendrel')?.value ?? ''
  const before = await cookieOf()
  // The stream that this page holds open ends when its session does.
  const ended = page.evaluate(
    () =>
      new Promise<string>(resolve => {
        const source = new EventSource('/api/v1/events')
        source.onerror = () => {
          source.close()
          resolve('ended')
        }
      }),
  )
  await page.waitForTimeout(300)
  expect((await context.request.post(`${address()}/api/v1/session`, { data: administrator })).status()).toBe(204)
  expect(await ended).toBe('ended')
  const old = await browser.newContext()
  await old.addCookies([{ name: 'wendrel', value: before, url: address() }])
  expect((await old.request.get(`${address()}/api/v1/systems`)).status()).toBe(401)
  for (const path of pages().filter(each => !each.includes('[') && !open.has(each)))
    await page.goto(`${address()}${path}`)
  expect(faults).toEqual([])
  // What opens over a page writes styles of its own: they are let through by the page's nonce, and nothing else is.
  await page.goto(`${address()}/provision`)
  await page.keyboard.press('n')
  await margin(page).getByLabel('Host group').click()
  await page.getByRole('option').first().click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Views' }).click()
  await page.getByRole('menuitem', { name: 'Name the list as it stands now' }).click()
  await expect(page.getByRole('dialog', { name: 'Name this view' })).toBeVisible()
  await page.getByLabel('Name', { exact: true }).last().fill('All of them')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('The view All of them is saved, for everyone here.', { exact: true })).toBeVisible()
  expect(faults).toEqual([])
})

test('a stream ends as soon as its token is withdrawn', async ({ request, playwright }) => {
  await withHeron(request)
  const { token } = (await (await request.post(`${address()}/api/v1/tokens`, { data: { name: 'stream' } })).json()) as {
    token: string
  }
  const stop = new AbortController()
  const stream = await fetch(`${address()}/api/v1/events`, {
    headers: { Authorization: `Bearer ${token}` },
    signal: stop.signal,
  })
  expect(stream.status).toBe(200)
  const reading = (async () => {
    const reader = stream.body?.getReader()
    while ((await reader?.read())?.done === false);
    return 'ended'
  })()
  const { items } = (await (await request.get(`${address()}/api/v1/tokens`)).json()) as {
    items: { id: string; name: string }[]
  }
  const own = items.find(each => each.name === 'stream')
  expect((await request.delete(`${address()}/api/v1/tokens/${own?.id}`)).status()).toBe(204)
  const late = new Promise<string>(resolve => setTimeout(() => resolve('still open'), 5000))
  expect(await Promise.race([reading, late])).toBe('ended')
  stop.abort()
  const script = await playwright.request.newContext({ extraHTTPHeaders: { Authorization: `Bearer ${token}` } })
  expect((await script.get(`${address()}/api/v1/systems`)).status()).toBe(401)
})

test('requests from other sites, and from nowhere, change nothing', async ({ request }) => {
  await withHeron(request)
  for (const origin of ['null', 'http://elsewhere.example', 'not an origin', 'file://'])
    for (const path of ['/session', '/sites', '/first-administrator']) {
      const answer = await request.post(`${address()}/api/v1${path}`, {
        headers: { Origin: origin },
        data: { name: 'a', password: 'b', code: 'c' },
      })
      expect([answer.status(), ((await answer.json()) as { code: string }).code], `${origin} ${path}`).toEqual([
        403,
        'access.foreign-origin',
      ])
    }
})

test('the record shows who did what, and proves that it was not altered', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/account/record`)
  await expect(page.getByText('Every entry follows from the one before it.')).toBeVisible()
  await expect(page.getByRole('cell', { name: 'signed in' }).first()).toBeVisible()
  await isAccessible(page)
  const lines = (await (await page.request.get(`${address()}/api/v1/audit.jsonl`)).text()).trim().split('\n')
  const entries = lines.map(
    line => JSON.parse(line) as { id: number; hash: string; previousHash: string; action: string },
  )
  expect(entries.map(entry => entry.id)).toEqual(entries.map((_, index) => index + 1))
  entries.slice(1).forEach((entry, index) => expect(entry.previousHash).toBe(entries[index]?.hash))
  expect(entries.map(entry => entry.action)).toEqual(
    expect.arrayContaining(['session.opened', 'change.carried-out', 'token.withdrawn']),
  )
})

test('two windows edit one draft: the later one is told, and what is carried out is what it shows', async ({
  browser,
}) => {
  const context = await browser.newContext()
  const [mine, theirs] = [await context.newPage(), await context.newPage()]
  await signIn(mine)
  await mine.goto(`${address()}/provision?draft=provision-volume`)
  await mine.getByLabel('Purpose').fill('window')
  await expect(mine.getByText('kept as a draft')).toBeVisible()
  await theirs.goto(mine.url())
  await theirs.getByLabel('Purpose').fill('window two')
  await expect.poll(async () => theirs.getByText(/Computing/).count()).toBe(0)
  await theirs.waitForTimeout(600)
  await mine.getByLabel('Purpose').fill('window one')
  await expect(mine.getByRole('complementary').getByRole('alert')).toContainText('has altered this draft meanwhile')
  await mine.getByRole('button', { name: 'Take it as it is there' }).click()
  await expect(mine.getByLabel('Purpose')).toHaveValue('window two')
  await mine.getByRole('button', { name: 'Discard' }).click()
})

test('n goes on with a draft that was left', async ({ page }) => {
  await signIn(page)
  await page.goto(`${address()}/provision/hosts?draft=register-host`)
  await page
    .getByLabel(/Agent|Address/)
    .first()
    .fill('http://127.0.0.1:9')
  await expect(page.getByText('kept as a draft')).toBeVisible()
  await page.goto(`${address()}/provision/hosts`)
  await expect(page.getByRole('link', { name: /Go on with your draft/ })).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByLabel(/Agent|Address/).first()).toHaveValue('http://127.0.0.1:9')
  await page.getByRole('button', { name: 'Discard' }).click()
})
