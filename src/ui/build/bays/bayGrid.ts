export interface BayPlace {
  readonly bay: number
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** Where the bays of an enclosure stand, in pixels: tall and narrow in one row, or flat in rows of a few, as in the rack. */
export function bayGrid(
  bayCount: number,
  baysPerRow: number,
  widthPixels: number,
): { readonly places: readonly BayPlace[]; readonly height: number; readonly isUpright: boolean } {
  const perRow = Math.max(1, baysPerRow)
  const isUpright = perRow > 6
  const gap = 3
  const most = isUpright ? 34 : 200
  const width = Math.min(most, (widthPixels - gap * (perRow - 1)) / perRow)
  const height = isUpright ? 112 : 30
  const rows = Math.ceil(bayCount / perRow)
  const places = Array.from({ length: bayCount }, (_, index) => ({
    bay: index + 1,
    x: (index % perRow) * (width + gap),
    y: Math.floor(index / perRow) * (height + gap),
    width,
    height,
  }))
  return { places, height: rows * (height + gap) - gap, isUpright }
}
