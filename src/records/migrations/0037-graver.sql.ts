/** How grave something was when somebody signed that it may stand; null for what was signed before that was kept. */
export const sql = `
alter table signed_exceptions add column gravity text check (gravity in ('now', 'soon', 'note'));
`
