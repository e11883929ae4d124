/** What lies below each folder of the latest walk through a share; by numbers, as paths are longer than an index takes. */
export const sql = `
create table scan_folders (
  scan_id uuid not null references file_scans on delete cascade, id int not null, parent_id int, name text not null,
  files bigint not null, bytes numeric not null, folders int not null, newest_at timestamptz,
  primary key (scan_id, id)
);
create index scan_folders_by_size on scan_folders (scan_id, parent_id, bytes desc, id);
`
