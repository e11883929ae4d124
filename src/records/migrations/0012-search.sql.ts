/** Search looks for parts of words: it no longer reads all changes and drives for them. */
export const sql = `
create index changes_by_title_parts on changes using gin (title gin_trgm_ops);
create index drives_by_serial_parts on drives using gin (serial gin_trgm_ops);
create index drives_by_wwn_parts on drives using gin (wwn gin_trgm_ops);
`
