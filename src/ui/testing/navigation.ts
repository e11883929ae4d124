/** Stands in for Next's router in component tests (see jest.config.mjs): the address is the window's own. */

/** Where the router was told to go. */
export const pushed: string[] = []

export const useRouter = () => ({
  push: (href: string) => void pushed.push(href),
  replace: (href: string) => void pushed.push(href),
  refresh: () => void pushed.push('refreshed'),
})
export const usePathname = () => window.location.pathname
export const useSearchParams = () => new URLSearchParams(window.location.search)
