/** Broken mirrors are asked for after each reading: there are hardly ever any. */
export const sql = `
create index volumes_by_broken_mirror on volumes (system_id) where mirror->>'state' = 'broken' and mirror->>'role' = 'source';
`
