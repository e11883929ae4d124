/** What walks through the files of shares have found: the sums stay, the lists of the latest too. */
export const sql = `
create table file_scans (
  id uuid primary key, share_id uuid not null references shares on delete cascade, host_name text not null, seen_as text not null,
  at timestamptz not null, ended_at timestamptz, report jsonb, twins jsonb, made_by_step text not null unique
);
create index file_scans_by_share on file_scans (share_id, at desc);
create table file_scan_parts (
  scan_id uuid not null references file_scans on delete cascade, part int not null, files int not null, bytes numeric not null,
  last_path text not null, packed bytea not null, primary key (scan_id, part)
);
alter table file_scan_parts alter column packed set storage external;
`
