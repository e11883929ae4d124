import type { DirectoryIdentity, DirectoryReader } from '@/ports'
import { conversing, type DirectoryEndpoint } from './connect'
import { DirectorySilent, DirectoryUnbounded } from './errors'
import { attributes, everybodyFilter, principalsOf, type Entry } from './principals'

export type { DirectoryEndpoint } from './connect'

const pageSize = 500
const mostEntries = 1_000_000

/** Sees who answers as a directory, by the certificate and by what it tells everybody; nothing is told to it. Source: RFC 4512, 5.1. */
export const identifyDirectory = (
  endpoint: Omit<DirectoryEndpoint, 'fingerprint'>,
  stop: AbortSignal,
): Promise<DirectoryIdentity> =>
  conversing({ ...endpoint, fingerprint: null }, stop, async (client, seen) => {
    const { searchEntries } = await client.search('', {
      scope: 'base',
      filter: '(objectClass=*)',
      attributes: ['namingContexts', 'vendorName'],
    })
    const certificate = seen()
    if (certificate === undefined) throw new DirectorySilent(endpoint.address, 'It showed no certificate.')
    const [root] = searchEntries
    const texts = (value: unknown) => [value].flat().filter(each => typeof each === 'string')
    return {
      fingerprint: certificate.fingerprint,
      certificateTrouble: certificate.trouble,
      baseDns: texts(root?.['namingContexts']).slice(0, 50),
      maker: texts(root?.['vendorName'])[0]?.slice(0, 200) ?? null,
    }
  })

/** A directory over LDAP v3 (RFC 4511), sealed by TLS, read page by page (RFC 2696). Referrals to other places are not followed. */
export const directoryReader = (
  endpoint: DirectoryEndpoint,
  { name, password }: { readonly name: string; readonly password: string },
  stop: AbortSignal,
): DirectoryReader => ({
  read: (baseDn, told) =>
    conversing(endpoint, stop, async (client, certificate) => {
      await client.bind(name, password)
      const entries: Entry[] = []
      const pages = client.searchPaginated(baseDn, {
        scope: 'sub',
        filter: everybodyFilter,
        attributes,
        paged: { pageSize },
        derefAliases: 'never',
      })
      const seen = new Set<string>()
      for await (const { searchEntries } of pages) {
        const before = seen.size
        for (const entry of searchEntries) {
          if (seen.has(entry.dn)) continue
          seen.add(entry.dn)
          entries.push(entry as Entry)
        }
        if (searchEntries.length > 0 && seen.size === before)
          throw new DirectoryUnbounded(endpoint.address, 'It tells the same entries again and again.')
        if (entries.length > mostEntries)
          throw new DirectoryUnbounded(
            endpoint.address,
            `It has more than ${mostEntries} entries below ${baseDn.slice(0, 200)}.`,
          )
        await told(entries.length)
      }
      return { ...principalsOf(entries), certificateEndsAt: certificate()?.endsAt ?? null }
    }),
})
