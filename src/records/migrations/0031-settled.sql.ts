/** What proven changes have set on systems, to be compared with what these state later. */
export const sql = `
create table settled (
  object_id uuid not null, field text not null, kind text not null, value jsonb not null, change_id uuid not null references changes on delete cascade,
  at timestamptz not null, primary key (object_id, field)
);
create index settled_by_change on settled (change_id);
`
