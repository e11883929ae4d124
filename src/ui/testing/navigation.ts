/** Stands in for Next's router in component tests (see jest.config.mjs): the address is the window's own, or what a page's test has set. */

/** Where the router was told to go. */
export const pushed: string[] = []

let at = new URL('http://here.invalid/')
/** Says where a page stands that is drawn without a window. */
export const standAt = (address: string) => void (at = new URL(address, at))
const here = () => (typeof window === 'undefined' ? at : new URL(window.location.href))

export const useRouter = () => ({
  push: (href: string) => void pushed.push(href),
  replace: (href: string) => void pushed.push(href),
  refresh: () => void pushed.push('refreshed'),
})
export const usePathname = () => here().pathname
export const useSearchParams = () => here().searchParams

/** What a page does instead of answering. */
export class LedAway extends Error {}
export const redirect = (href: string): never => {
  throw new LedAway(href)
}
export const notFound = (): never => {
  throw new LedAway('not found')
}
