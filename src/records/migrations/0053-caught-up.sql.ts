/** That something has come in at once is told by the database's own clock now, and stands until what follows from it has been made. */
export const sql = `
update metric_sources set caught_up_at = null where caught_up_at is not null;
`
