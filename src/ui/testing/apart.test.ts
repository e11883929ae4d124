/** @jest-environment jsdom */
import { apart } from './apart'

const had = { click: HTMLAnchorElement.prototype.click, matchMedia: window.matchMedia }

describe('a file that puts things in the place of what a browser has', () => {
  apart()

  test('has them as it set them', () => {
    window.matchMedia = () => ({ matches: true }) as never
    Object.defineProperty(HTMLElement.prototype, 'clientWidth', { configurable: true, get: () => 7 })
    HTMLAnchorElement.prototype.click = () => undefined
    localStorage.setItem('seen', 'yes')
    window.history.replaceState(null, '', '/volumes?sel=1')
    document.body.append('left over')
    expect(document.body.clientWidth).toBe(7)
  })
})

describe('the next file in the same page', () => {
  test('finds all as it was before', () => {
    expect(window.matchMedia).toBe(had.matchMedia)
    expect(document.body.clientWidth).toBe(0)
    expect(HTMLAnchorElement.prototype.click).toBe(had.click)
    expect(localStorage).toHaveLength(0)
    expect(`${window.location.pathname}${window.location.search}`).toBe('/')
    expect(document.body.textContent).toBe('')
  })
})
