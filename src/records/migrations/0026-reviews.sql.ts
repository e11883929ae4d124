/** Looks at the rights of shares: what stays, what goes, and who has said so. */
export const sql = `
create table reviews (
  id uuid primary key, share_id uuid not null references shares on delete cascade, at timestamptz not null default now(),
  made_by text not null, note text not null, lines jsonb not null
);
create index reviews_by_share on reviews (share_id, at desc);
create trigger tell_new after insert on reviews referencing new table as changed for each statement execute function tell_rows();
`
