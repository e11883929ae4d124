/** Where hosts find snapshots of a share. */
export const sql = `
alter table shares add column snapshot_directory jsonb;
`
