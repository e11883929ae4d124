import { act, configure, render, screen } from '@testing-library/react'
import userEvent, { PointerEventsCheckLevel, type UserEvent } from '@testing-library/user-event'
import type { ReactElement } from 'react'
import { ServerLists } from '../table/ServerLists'
import { TextDecoder, TextEncoder } from 'node:util'
import { pushed } from './navigation'

// What is waited for comes after a pause of the component's own; how long a busy machine takes for it says nothing of the component.
configure({ asyncUtilTimeout: 15_000 })

// What lists and boxes ask of a browser and jsdom has not.
HTMLElement.prototype.scrollIntoView = () => undefined
HTMLElement.prototype.hasPointerCapture = () => false
HTMLElement.prototype.releasePointerCapture = () => undefined
if (typeof window !== 'undefined')
  window.matchMedia ??= () => ({ matches: false, addEventListener: () => {}, removeEventListener: () => {} }) as never
if (typeof document !== 'undefined' && document.fonts === undefined)
  Object.defineProperty(document, 'fonts', { value: { ready: Promise.resolve() } })
// What browsers have and jsdom has not.
Object.assign(globalThis, { TextDecoder, TextEncoder })
// Nothing is drawn; what a drawing says is asked for.
if (typeof HTMLCanvasElement !== 'undefined') HTMLCanvasElement.prototype.getContext = () => null
globalThis.ResizeObserver ??= class {
  observe() {}
  unobserve() {}
  disconnect() {}
}

/** What a component under test has asked Wendrel's API, in order. */
export interface Asked {
  readonly method: string
  readonly path: string
  readonly body: unknown
}

type Answer = { readonly status?: number; readonly body?: unknown } | 'unreachable'

/** jsdom lays nothing out: every element is given a size, so that virtual rows are drawn. */
export function giveSizes(width = 800, height = 600): void {
  Object.defineProperties(HTMLElement.prototype, {
    clientWidth: { configurable: true, get: () => width },
    clientHeight: { configurable: true, get: () => height },
  })
  // As newer browsers do: an effect must not hand this on.
  HTMLElement.prototype.scrollTo = () => Promise.resolve() as never
  globalThis.ResizeObserver = class {
    observe() {}
    unobserve() {}
    disconnect() {}
  }
}

/** Answers what components ask of the API by a function of the test; @returns what has been asked so far */
export function answering(answer: (asked: Asked) => Answer): Asked[] {
  const all: Asked[] = []
  globalThis.fetch = ((path: string, { method = 'GET', body }: { method?: string; body?: string } = {}) => {
    const asked = { method, path, body: body === undefined ? undefined : (JSON.parse(body) as unknown) }
    all.push(asked)
    const given = answer(asked)
    if (given === 'unreachable') return Promise.reject(new TypeError('fetch failed'))
    const status = given.status ?? 200
    return Promise.resolve({ status, ok: status < 400, json: () => Promise.resolve(given.body) })
  }) as unknown as typeof fetch
  return all
}

/** Shows a component at an address, with a user who acts on it. */
export function shown(element: ReactElement, at = '/') {
  window.history.replaceState(null, '', at)
  pushed.length = 0
  // jsdom knows no styles, so that nothing ever bars a pointer: looking for it at each press takes half of the time.
  return {
    user: userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never }),
    ...render(element, { wrapper: ServerLists }),
  }
}

/** Lets some milliseconds of real time pass within React. */
export const pass = (milliseconds: number) =>
  act(() => new Promise<void>(resolve => void setTimeout(resolve, milliseconds)))

/** Chooses in a list, by what the option says. */
export async function choose(user: UserEvent, list: HTMLElement, option: string | RegExp): Promise<void> {
  await user.click(list)
  await user.click(await screen.findByRole('option', { name: option }))
}

/** What an element says, with its marks in brackets: `[now] does not answer`. */
export function wordsOf(element: Element | null | undefined): string {
  const copy = element?.cloneNode(true) as Element | undefined
  for (const mark of copy?.querySelectorAll('[data-gravity]') ?? [])
    mark.replaceWith(`[${mark.getAttribute('data-gravity') ?? ''}] `)
  return copy?.textContent?.replace(/\s+/g, ' ').trim() ?? ''
}

/** Whether what stands behind a line is unfolded. */
export const isUnfolded = (line: HTMLElement) => line.closest('button')?.getAttribute('aria-expanded') === 'true'
