/** How long a change has stood still, stopped or unproven, before somebody let it go on: no part of the time that it takes. */
export const sql = `
alter table changes add column idle_seconds double precision not null default 0;
`
