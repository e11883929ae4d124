import { request as ask, type IncomingHttpHeaders } from 'node:http'

export interface Answer {
  readonly status: number
  readonly headers: IncomingHttpHeaders
  readonly text: string
}

/** Asks a server on loopback, on a connection of its own. */
export const askedAt = (
  port: number,
  path: string,
  options: { readonly method?: string; readonly headers?: Record<string, string>; readonly body?: string } = {},
) =>
  new Promise<Answer>((resolve, reject) => {
    const { method = 'GET', headers = {}, body } = options
    const sent = ask({ host: '127.0.0.1', port, path, method, headers, agent: false }, response => {
      let text = ''
      response.on('data', part => (text += part))
      response.on('end', () => resolve({ status: response.statusCode ?? 0, headers: response.headers, text }))
    })
    sent.on('error', reject)
    sent.end(body)
  })
