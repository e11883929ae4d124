import ldap, { type Handler, type Request, type Response } from 'ldapjs'
import type { Faults } from '../fleet'
import { certificate, privateKey } from './certificate'
import { baseDn, type DirectoryTree } from './DirectoryTree'

const target = 'directory'
/** So many entries come in one answer that is not asked for page by page. */
const mostAtOnce = 1000

/** The directory over LDAP v3, sealed by TLS. Sources: RFC 4511, RFC 2696 (pages), RFC 4512, 5.1 (what it says of itself to everybody). */
export class DirectoryServer {
  readonly #server = ldap.createServer({ certificate, key: privateKey })

  constructor(
    readonly tree: DirectoryTree,
    private readonly faults: Faults,
  ) {
    const late: Handler = (_request, response, next) => {
      if (this.faults.strikes(target, 'not-answering') !== undefined) return void response.connection.destroy()
      const fault = this.faults.strikes(target, 'slow')
      if (fault === undefined) next()
      else setTimeout(next, fault.milliseconds)
    }
    this.#server.bind(baseDn, late, (request, response, next) => {
      if (!this.tree.opens(String(request.dn), request.credentials))
        return next(new ldap.InvalidCredentialsError('name or password is wrong'))
      response.end()
      next()
    })
    this.#server.search('', late, (request, response, next) => {
      if (request.scopeName === 'base' && String(request.dn) === '')
        response.send({
          dn: '',
          attributes: named(request, response, {
            objectClass: ['top'],
            namingContexts: [baseDn],
            supportedLDAPVersion: ['3'],
            supportedControl: [ldap.PagedResultsControl.OID],
            vendorName: ['Quillstone'],
          }),
        })
      response.end()
      next()
    })
    this.#server.search(baseDn, late, (request, response, next) => this.#search(request, response, next))
  }

  #search(request: Request, response: Response, next: (error?: unknown) => void): void {
    if (String(request.connection.ldap.bindDN) === 'cn=anonymous')
      return next(new ldap.InsufficientAccessRightsError('sign in first'))
    const base = String(request.dn)
      .toLowerCase()
      .replace(/\s*([,=])\s*/g, '$1')
    const found = this.tree.all().filter(({ dn, attributes }) => {
      const own = dn.toLowerCase()
      const isBelow = own.endsWith(`,${base}`)
      const isWithin =
        request.scopeName === 'base'
          ? own === base
          : request.scopeName === 'single'
            ? isBelow && !own.slice(0, -base.length - 1).includes(',')
            : own === base || isBelow
      return isWithin && request.filter.matches(attributes, false)
    })
    const paging = request.controls.find(each => each.type === ldap.PagedResultsControl.OID) as
      | { readonly value: { readonly size: number; readonly cookie: Buffer } }
      | undefined
    if (paging === undefined && found.length > mostAtOnce)
      return next(new ldap.SizeLimitExceededError('ask page by page'))
    const from = paging === undefined ? 0 : Number(paging.value.cookie.toString() || 0)
    const to = paging === undefined ? found.length : from + paging.value.size
    for (const { dn, attributes } of found.slice(from, to))
      response.send({ dn, attributes: named(request, response, attributes) })
    if (paging !== undefined) {
      const cookie = Buffer.from(to < found.length ? `${to}` : '')
      response.addControl(new ldap.PagedResultsControl({ value: { size: found.length, cookie } }))
    }
    response.end()
    next()
  }

  async listen(port: number): Promise<number> {
    await new Promise<void>((listening, failed) => {
      this.#server.once('error', failed)
      this.#server.listen(port, '127.0.0.1', listening)
    })
    this.#server.on('error', () => undefined)
    return Number(new URL(this.#server.url.replace(/^ldaps?/, 'http')).port)
  }

  stop(): Promise<void> {
    return new Promise(closed => {
      this.#server.close(() => closed())
    })
  }
}

const operational = new Set([
  'entryuuid',
  'pwdaccountlockedtime',
  'namingcontexts',
  'supportedcontrol',
  'supportedldapversion',
])

/**
 * The attributes that are asked for, in any letters; operational ones only by name, or all of them by `+`. The library would look for
 * names in small letters only. Source: RFC 4511, 4.5.1.8; RFC 3673.
 */
function named(
  { attributes: wanted }: Request,
  response: Response,
  attributes: Readonly<Record<string, readonly string[]>>,
): Readonly<Record<string, readonly string[]>> {
  response.attributes = []
  const names = new Set(wanted.map(each => each.toLowerCase()))
  const isAll = names.size === 0 || names.has('*')
  return Object.fromEntries(
    Object.entries(attributes).filter(([name]) => {
      const plain = name.toLowerCase()
      return names.has(plain) || (operational.has(plain) ? names.has('+') : isAll)
    }),
  )
}
