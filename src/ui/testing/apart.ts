/** Where tests put something in the place of what a browser has. */
const places = () => [globalThis, HTMLElement.prototype, HTMLAnchorElement.prototype, URL]

/**
 * Files of tests that stand in one page: what one of them puts in the place of what a browser has, keeps or writes into the address is
 * as it was before when the next begins. Called where the tests of a file are described.
 */
export function apart(): void {
  const before = places().map(place => [place, Object.getOwnPropertyDescriptors(place)] as const)
  afterAll(() => {
    for (const [place, had] of before) putBack(place, had)
    localStorage.clear()
    sessionStorage.clear()
    window.history.replaceState(null, '', '/')
    document.body.replaceChildren()
  })
}

/** Only what is not as it was is touched: asking for a property may already make something. */
function putBack(place: object, had: Record<string, PropertyDescriptor>): void {
  for (const [name, now] of Object.entries(Object.getOwnPropertyDescriptors(place)) as [string, PropertyDescriptor][]) {
    const was = had[name]
    if (now.configurable !== true || (was !== undefined && was.value === now.value && was.get === now.get)) continue
    if (was === undefined) Reflect.deleteProperty(place, name)
    else Object.defineProperty(place, name, was)
  }
}
