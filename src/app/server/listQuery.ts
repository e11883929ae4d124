/** What a list is asked for, as the query of its API; what is as at first is left out. */
export const listQuery = (question: Readonly<Record<string, unknown>>): URLSearchParams =>
  new URLSearchParams(
    Object.entries(question).flatMap(([name, value]) =>
      value === undefined || value === '' || value === false
        ? []
        : [[name === 'isDescending' ? 'descending' : name, String(value)]],
    ),
  )
