import { useSyncExternalStore } from 'react'
import type { ServerColumn } from './ServerColumn'

/** How rows lie: side by side in columns, or, where there is no room for that, each as a few lines with the heads in front. */
export interface RowShape {
  readonly isNarrow: boolean
  readonly tracks: { readonly gridTemplateColumns: string }
  /** The height of a row (pixels). */
  readonly pixels: number
}

const rowPixels = 29
const linePixels = 21
const narrow = '(max-width: 560px)'

function watch(changed: () => void): () => void {
  const media = window.matchMedia(narrow)
  media.addEventListener('change', changed)
  return () => media.removeEventListener('change', changed)
}

export function useRowShape<Row>(columns: readonly ServerColumn<Row>[], isChoosable: boolean): RowShape {
  const isNarrow = useSyncExternalStore(
    watch,
    () => window.matchMedia(narrow).matches,
    () => false,
  )
  if (!isNarrow) {
    const tracks = [...(isChoosable ? ['18px'] : []), ...columns.map(each => each.track)]
    return { isNarrow, tracks: { gridTemplateColumns: tracks.join(' ') }, pixels: rowPixels }
  }
  // Its name fills a line, then come two to a line.
  const lines = 1 + Math.ceil((columns.length - 1) / 2)
  return { isNarrow, tracks: { gridTemplateColumns: '1fr 1fr' }, pixels: lines * linePixels + 8 }
}
