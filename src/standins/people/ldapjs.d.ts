/** What is used of ldapjs 3, which brings no types of its own. */
declare module 'ldapjs' {
  import type { Socket } from 'node:net'

  interface Control {
    readonly type: string
  }
  interface Connection extends Socket {
    readonly ldap: { readonly bindDN: { toString(): string } }
  }
  export interface Request {
    readonly dn: { toString(): string }
    readonly connection: Connection
    readonly controls: readonly Control[]
    /** Of a bind. */
    readonly credentials: string
    /** Of a search. */
    readonly scopeName: 'base' | 'single' | 'subtree'
    readonly attributes: readonly string[]
    readonly filter: {
      matches(attributes: Readonly<Record<string, readonly string[]>>, isCaseStrict: boolean): boolean
    }
  }
  export interface Response {
    readonly connection: Connection
    /** What it lets through, by small letters; all where it is empty. */
    attributes: string[]
    addControl(control: Control): void
    send(entry: { readonly dn: string; readonly attributes: Readonly<Record<string, readonly string[]>> }): void
    end(): void
  }
  export type Handler = (request: Request, response: Response, next: (error?: unknown) => void) => void
  interface Server {
    readonly url: string
    bind(suffix: string, ...handlers: readonly Handler[]): void
    search(suffix: string, ...handlers: readonly Handler[]): void
    listen(port: number, host: string, listening: () => void): void
    close(closed: () => void): void
    on(event: 'error', heard: (cause: Error) => void): void
    once(event: 'error', heard: (cause: Error) => void): void
  }
  type LdapError = new (message: string) => Error
  interface PagedResultsControl {
    readonly OID: string
    new (options: { readonly value: { readonly size: number; readonly cookie: Buffer } }): Control
  }
  const ldap: {
    createServer(options: { readonly certificate: string; readonly key: string }): Server
    readonly InvalidCredentialsError: LdapError
    readonly InsufficientAccessRightsError: LdapError
    readonly SizeLimitExceededError: LdapError
    readonly PagedResultsControl: PagedResultsControl
  }
  export default ldap
}
