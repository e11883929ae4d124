const colours = ['var(--d1)', 'var(--d4)', 'var(--d2)', 'var(--d6)', 'var(--d3)', 'var(--d5)', 'var(--d7)']

/** A colour for the n-th RAID group; after seven they come round again, told apart by the words beside them. */
export const groupColour = (index: number) => colours[index % colours.length] ?? 'var(--d1)'
