import { createServer } from 'node:net'

const listenOn = (port: number) =>
  new Promise<number | undefined>(resolve => {
    const server = createServer()
    server.once('error', () => resolve(undefined))
    server.listen({ host: '127.0.0.1', port, exclusive: true }, () => {
      const address = server.address()
      server.close(() => resolve(typeof address === 'object' && address !== null ? address.port : undefined))
    })
  })

/** Whether nothing listens on a port of loopback. */
export const isFree = async (port: number) => (await listenOn(port)) !== undefined

/** Whether browsers open pages at a port: of some they do not, whatever answers there. Source: WHATWG Fetch, port blocking. */
export async function isForPages(port: number): Promise<boolean> {
  // Barred ports are refused before anything is sent; an aborted request sends nothing either.
  const cause = await fetch(`http://127.0.0.1:${port}`, { signal: AbortSignal.timeout(500) }).then(
    () => undefined,
    (error: unknown) => (error as { readonly cause?: { readonly message?: string } }).cause?.message,
  )
  return cause !== 'bad port'
}

/** A free port of loopback; the wanted one if it is. */
export async function freePort(wanted = 0): Promise<number> {
  return (await listenOn(wanted)) ?? (await listenOn(0)) ?? 0
}
