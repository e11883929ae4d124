import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { expect, type APIRequestContext } from '@playwright/test'
import { ownEstate } from '../estate'
import { address, administrator } from '../steps'

export const victims = ['worker', 'standins', 'web', 'postgres'] as const
export type Victim = (typeof victims)[number]

interface Change {
  readonly id: string
  readonly state: string
  readonly planDigest: string
  readonly refusal: { readonly why: string } | null
  readonly facts: Readonly<Record<string, string>>
  readonly plan: {
    readonly checks: readonly { readonly holds: boolean; readonly level: string; readonly why: string }[]
  }
}
interface Followed {
  readonly change: Change
  readonly journal: readonly { readonly event: string; readonly stepIndex: number }[]
  readonly evidence: readonly { readonly claim: string; readonly attempt: number }[]
}

/** When the process is killed after the change was set running, in turn (milliseconds). */
const delays = [0, 40, 120, 260, 500]
const data = () => ownEstate().data

function pidOf(victim: Victim): number {
  if (victim !== 'postgres') return Number(readFileSync(join(data(), 'logs', `${victim}.pid`), 'utf8'))
  const pointer = join(data(), 'cluster-folder')
  const folder = existsSync(pointer) ? readFileSync(pointer, 'utf8') : data()
  const file = join(folder, 'postgres', 'postmaster.pid')
  return existsSync(file) ? Number(readFileSync(file, 'utf8').split('\n')[0]) : 0
}

/** An estate whose changes are carried out while one of its processes is killed. */
export class KilledEstate {
  #kills = 0

  constructor(
    private readonly request: APIRequestContext,
    private readonly victim: Victim,
  ) {}

  async signIn(): Promise<void> {
    const code = ownEstate().code
    const first = { code, name: administrator.name, password: administrator.password }
    await this.request.post(`${address()}/api/v1/first-administrator`, { data: first })
    expect((await this.request.post(`${address()}/api/v1/session`, { data: administrator })).status()).toBe(204)
  }

  /** Asks a host's agent, whose process may just have been killed. */
  async host(address: string, path: string, body: object): Promise<void> {
    const isDone = () =>
      fetch(`${address}/agent${path}`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(body),
      })
        .then(answer => answer.ok)
        .catch(() => false)
    await expect.poll(isDone, { timeout: 30_000 }).toBe(true)
  }

  /** Waits until a system of the fleet, whose process may just have been killed, answers. */
  async heard(at: string): Promise<void> {
    const isHeard = () =>
      fetch(`${at}/redfish/v1`)
        .then(answer => answer.ok)
        .catch(() => false)
    await expect.poll(isHeard, { timeout: 30_000 }).toBe(true)
  }

  /** Reads, however often what answers has to be waited for. */
  async get<T>(path: string): Promise<T> {
    for (let attempt = 0; ; attempt += 1) {
      const answer = await this.request.get(`${address()}/api/v1${path}`).catch(() => undefined)
      if (answer?.ok() === true) return (await answer.json()) as T
      if (attempt > 200) throw new Error(`${path} was not answered: ${(await answer?.text()) ?? 'nothing'}`)
      await pause(200)
    }
  }

  async post<T>(path: string, body: object): Promise<T> {
    const answer = await this.request.post(`${address()}/api/v1${path}`, { data: body })
    if (!answer.ok()) throw new Error(`${path}: ${await answer.text()}`)
    return (await answer.json()) as T
  }

  /** Carries a change out and kills the process in the middle of it; it must end proven, each step begun and done once. */
  async proven(kind: string, intent: object): Promise<Change> {
    const id = await this.#begun(kind, intent)
    await this.kill()
    return this.#ended(kind, intent, id)
  }

  /** Carries a change out that has been killed often enough; it must end proven too. */
  async carried(kind: string, intent: object): Promise<Change> {
    return this.#ended(kind, intent, await this.#begun(kind, intent))
  }

  /**
   * Drafts a change and lets it be carried out, as somebody does who looks at what has become otherwise since and presses again: a system
   * falls silent whose process was killed, and what was held is deleted when its time is over.
   */
  async #begun(kind: string, intent: object): Promise<string> {
    for (let attempt = 0; ; attempt += 1) {
      const { id, planDigest } = await this.#drafted(kind, intent)
      const answer = await this.request.post(`${address()}/api/v1/changes/${id}/carry-out`, { data: { planDigest } })
      if (answer.ok()) return id
      const text = await answer.text()
      if (!text.includes('drafting.plan-stale') || attempt > 20) throw new Error(`${kind}: ${text}`)
      await pause(1000)
    }
  }

  /** Follows a change to its end; one that was given back as a draft, since a system fell silent before its first step, is begun anew. */
  async #ended(kind: string, intent: object, id: string, givenBack = 0): Promise<Change> {
    let found = await this.get<Followed>(`/changes/${id}`)
    for (let waited = 0; found.change.state === 'running' && waited < 90_000; waited += 250) {
      await pause(250)
      found = await this.get<Followed>(`/changes/${id}`)
    }
    const { change, journal, evidence } = found
    const isGivenBack = change.state === 'draft' && !journal.some(({ event }) => event === 'begun')
    if (isGivenBack && givenBack < 20) {
      await pause(1000)
      return this.#ended(kind, intent, await this.#begun(kind, intent), givenBack + 1)
    }
    expect([change.state, change.refusal?.why ?? ''], `${kind}: ${JSON.stringify(journal)}`).toEqual(['proven', ''])
    for (const event of ['begun', 'done']) {
      const steps = journal.filter(entry => entry.event === event).map(entry => entry.stepIndex)
      expect(steps, `${kind}: ${event}`).toEqual([...new Set(steps)])
    }
    expect(evidence.length, kind).toBe(new Set(evidence.map(each => each.claim)).size)
    return change
  }

  /** Drafts a change; a system that was down with its process is rightly refused until it has been heard again. */
  async #drafted(kind: string, intent: object): Promise<Change> {
    for (let waited = 0; ; waited += 1000) {
      const draft = await this.post<Change>('/changes', { kind, intent })
      const fallen = draft.plan.checks.filter(check => !check.holds && check.level === 'must').map(check => check.why)
      const isOnlyUnheard = fallen.length > 0 && fallen.every(why => why.includes('does not answer'))
      if (!isOnlyUnheard || waited >= 60_000) {
        expect(fallen, kind).toEqual([])
        return draft
      }
      await pause(1000)
    }
  }

  /** Kills the process, and waits until another has taken its place. */
  async kill(): Promise<void> {
    await pause(delays[this.#kills++ % delays.length] ?? 0)
    const before = pidOf(this.victim)
    process.kill(before, 'SIGKILL')
    await expect.poll(() => pidOf(this.victim), { timeout: 30_000 }).not.toBe(before)
  }

  async systemId(name: string): Promise<string> {
    const { items } = await this.get<{ items: { id: string; name: string }[] }>('/systems')
    return items.find(system => system.name === name)?.id ?? ''
  }

  /** How many tasks of a name a system has had: what it was really told to do. */
  async tasksNamed(at: string, userName: string, password: string, name: RegExp): Promise<number> {
    await this.heard(at)
    const session = await fetch(`${at}/redfish/v1/SessionService/Sessions`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ UserName: userName, Password: password }),
    })
    const headers = { 'X-Auth-Token': session.headers.get('x-auth-token') ?? '' }
    const answer = await fetch(`${at}/redfish/v1/TaskService/Tasks?$expand=.`, { headers })
    const { Members } = (await answer.json()) as { Members: { Name: string }[] }
    return Members.filter(task => name.test(task.Name)).length
  }
}
