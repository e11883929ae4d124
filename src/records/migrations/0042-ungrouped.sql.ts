/** Initiators that a system knows and that are in none of its groups. */
export const sql = `
alter table systems add column ungrouped jsonb not null default '[]';
`
