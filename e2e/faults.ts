import type { Page } from '@playwright/test'
import axe from 'axe-core'

/** The inks that no fault was found with: contrast is half of a look, and the same few dozen stand on most pages. */
const fine = new Set<string>()
const mark = 'data-new-ink'

/** What axe finds on a page that is serious or worse; contrast only where an ink is met for the first time. */
export async function seriousFaults(page: Page): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const inks = await markNew(page, [...fine])
  const faults = await page.evaluate(found, mark)
  if (faults.length === 0) for (const ink of inks) fine.add(ink)
  return faults
}

/** Only what is wrong is told: for what is right axe would write out where each of thousands of parts stands. */
async function found(attribute: string): Promise<string[]> {
  const { axe: within } = window as unknown as { readonly axe: typeof axe }
  within.configure({ rules: [{ id: 'color-contrast', selector: `[${attribute}]` }] })
  const { violations } = await within.run({ resultTypes: ['violations'], preload: false })
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => {
      const first = nodes.slice(0, 3).map(({ html }) => html)
      return `${id}: ${first.join(' | ')}`
    })
}

/**
 * Marks the elements whose ink is not known yet. An ink is all that contrast is judged by: colour and size of a text, with what is
 * beneath it.
 * @returns these inks
 */
const markNew = (page: Page, known: readonly string[]): Promise<string[]> =>
  page.evaluate(
    ({ known, mark }) => {
      for (const each of document.querySelectorAll(`[${mark}]`)) each.removeAttribute(mark)
      const grounds = new Map<Element, string>()
      const groundOf = (element: Element | null): string => {
        if (element === null) return ''
        const { backgroundColor, backgroundImage, opacity, position } = getComputedStyle(element)
        // What is put over others has beneath it what the elements around it do not tell: it counts as a ground of its own.
        const own = [backgroundColor, backgroundImage, opacity, position].join(' ')
        const isPlain = own === 'rgba(0, 0, 0, 0) none 1 static'
        const ground = grounds.get(element) ?? `${groundOf(element.parentElement)}${isPlain ? '' : `/${own}`}`
        grounds.set(element, ground)
        return ground
      }
      const seen = new Set(known)
      const inks = new Set<string>()
      for (const element of document.body.querySelectorAll('*')) {
        const hasText = [...element.childNodes].some(each => each.nodeType === 3 && each.textContent?.trim() !== '')
        if (element.getClientRects().length === 0 || !(hasText || element.matches('input, textarea, select'))) continue
        const { color, fontSize, fontWeight, visibility } = getComputedStyle(element)
        const isLive = element.matches(':enabled, :not(button, input, select, textarea)')
        const ink = [color, fontSize, fontWeight, visibility, isLive, groundOf(element)].join(' ')
        if (seen.has(ink)) continue
        inks.add(ink)
        element.setAttribute(mark, '')
      }
      return [...inks]
    },
    { known, mark },
  )
