import type { CodedRefusal } from '@/core/errors'

/** What the API has answered: the result, or the refusal with its reason. */
export type Answered<T> =
  | { readonly ok: true; readonly value: T }
  | { readonly ok: false; readonly refusal: CodedRefusal }

const unreachable: CodedRefusal = {
  code: 'ui.unreachable',
  what: 'Wendrel does not answer.',
  why: 'The connection to the server is gone.',
  remedy: 'What you typed stays here; it is sent again when the server is back.',
}

/** Asks Wendrel's own API. Never throws: what goes wrong is part of the answer. */
export async function ask<T>(
  method: 'GET' | 'POST' | 'PUT' | 'DELETE',
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<Answered<T>> {
  try {
    const response = await fetch(`/api/v1${path}`, {
      method,
      ...(body === undefined ? {} : { headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }),
      ...(signal === undefined ? {} : { signal }),
    })
    if (response.status === 204) return { ok: true, value: undefined as T }
    const answer: unknown = await response.json()
    return response.ok ? { ok: true, value: answer as T } : { ok: false, refusal: answer as CodedRefusal }
  } catch {
    return { ok: false, refusal: unreachable }
  }
}

/** Where to go after signing in: a path of ours, whatever an address says. A browser reads `/\\x` and `/ /x` as other sites. */
export function ownPath(to: string | null): string {
  const here = 'http://here.invalid'
  if (to === null || !to.startsWith('/') || !URL.canParse(to, here)) return '/'
  const { origin, pathname, search, hash } = new URL(to, here)
  const isPlain = !/^\/[/\\]/.test(pathname) && !/[\\\u0000-\u001f]/.test(to)
  return origin === here && isPlain ? `${pathname}${search}${hash}` : '/'
}

/** Whether it is worth asking again by itself. */
export const isPassing = (refusal: CodedRefusal) => refusal.code === 'ui.unreachable' || refusal.code === 'records.away'
