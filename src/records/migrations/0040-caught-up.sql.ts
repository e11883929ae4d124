/** When what a system had kept of a longer time came in at once: what follows from it is made anew. */
export const sql = `
alter table metric_sources add column caught_up_at timestamptz;
`
