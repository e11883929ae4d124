import { outOfBounds } from '@/core/input'
import { BadRequest, BodyTooLarge } from './errors'

/** How deep and wide a body may be: the largest draft, a cluster of 64 × 24 drives, has a tenth of it. */
const bounds = { depth: 24, members: 20_000 }

/**
 * The JSON body of a request, read no further than it may be long, and parsed only then.
 * @throws {BodyTooLarge | BadRequest}
 */
export async function readBody(request: Request, mostBytes: number): Promise<unknown> {
  const stated = Number(request.headers.get('content-length') ?? 0)
  if (stated > mostBytes) throw new BodyTooLarge(mostBytes)
  const parts: Uint8Array[] = []
  let bytes = 0
  const reading = request.body?.getReader()
  for (;;) {
    const { done, value } = (await reading?.read()) ?? { done: true, value: undefined }
    if (done) break
    bytes += value.length
    if (bytes > mostBytes) {
      await reading?.cancel().catch(() => undefined)
      throw new BodyTooLarge(mostBytes)
    }
    parts.push(value)
  }
  let body: unknown
  try {
    body = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(Buffer.concat(parts)))
  } catch {
    throw new BadRequest('The body is not JSON in UTF-8.')
  }
  const why = outOfBounds(body, bounds)
  if (why !== undefined) throw new BadRequest(`The body is not looked at. ${why}`)
  return body
}
