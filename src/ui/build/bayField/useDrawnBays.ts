import { useEffect, useRef, useState, type RefObject } from 'react'
import { drawBays, paletteNow, type Drawn, type Palette } from './drawBays'
import type { FieldLayout } from './fieldLayout'

/** The width that an element has now (pixels). */
export function useWidth(element: RefObject<HTMLElement | null>): number {
  const [width, setWidth] = useState(760)
  useEffect(() => {
    if (element.current === null) return
    const observer = new ResizeObserver(([entry]) => {
      if (entry !== undefined) setWidth(Math.floor(entry.contentRect.width))
    })
    observer.observe(element.current)
    return () => observer.disconnect()
  }, [element])
  return width
}

/** The colours and fonts of the page, anew when day turns to night or a font comes late; undefined at the server. */
function usePalette(): Palette | undefined {
  const [palette, setPalette] = useState<Palette>()
  useEffect(() => {
    const changed = () => setPalette(paletteNow())
    const themes = new MutationObserver(changed)
    themes.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] })
    const system = window.matchMedia('(prefers-color-scheme: dark)')
    system.addEventListener('change', changed)
    // Fonts that come late change how wide figures are.
    void document.fonts.ready.then(changed)
    return () => {
      themes.disconnect()
      system.removeEventListener('change', changed)
    }
  }, [])
  return palette
}

/** A canvas on which the bays stand as they are now. */
export function useDrawnBays(layout: FieldLayout, width: number, drawn: Drawn): RefObject<HTMLCanvasElement | null> {
  const canvas = useRef<HTMLCanvasElement>(null)
  const palette = usePalette()
  const { marks, chosen, focused, highlighted, isChoosing } = drawn
  useEffect(() => {
    const element = canvas.current
    const context = element?.getContext('2d') ?? null
    if (element === null || context === null || palette === undefined) return
    const scale = window.devicePixelRatio || 1
    element.width = Math.ceil(width * scale)
    element.height = Math.ceil((layout.height + 4) * scale)
    context.setTransform(scale, 0, 0, scale, 0, 0)
    context.clearRect(0, 0, width, layout.height + 4)
    context.translate(2, 2)
    drawBays(context, layout, palette, { marks, chosen, focused, highlighted, isChoosing })
  }, [layout, palette, width, marks, chosen, focused, highlighted, isChoosing])
  return canvas
}
