/** What drives have counted of their errors; series of what began at nothing begin when it is more. */
export const sql = `
alter table drives add column corrected_errors float8, add column lost_errors float8;
create index drives_by_errors on drives (corrected_errors) where corrected_errors > 0 or lost_errors > 0;
`
