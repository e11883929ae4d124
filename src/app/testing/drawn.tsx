import { text } from 'node:stream/consumers'
import type { ReactElement } from 'react'
import { prerenderToNodeStream } from 'react-dom/static'
import { ServerLists } from '@/ui/table/ServerLists'
import { standAt } from '@/ui/testing/navigation'

type Page = (given: {
  readonly params: Promise<never>
  readonly searchParams: Promise<never>
}) => ReactElement | Promise<ReactElement>

/**
 * Draws a page as the server does, with what its parts read.
 * @param address as it stands in the browser; its query is what the page is given
 * @returns the page's HTML without its tags, and the HTML itself
 */
export async function drawn(page: unknown, address: string, params: object = {}) {
  standAt(address)
  const query = Object.fromEntries(new URL(address, 'http://here.invalid').searchParams)
  const given = { params: Promise.resolve(params as never), searchParams: Promise.resolve(query as never) }
  const { prelude } = await prerenderToNodeStream(<ServerLists>{await (page as Page)(given)}</ServerLists>)
  const html = await text(prelude)
  const words = html
    .replace(/<(style|script)[\s\S]*?<\/\1>/g, '')
    .replace(/<[^>]*>/g, ' ')
    .replace(/\s+/g, ' ')
  return { html, words }
}
