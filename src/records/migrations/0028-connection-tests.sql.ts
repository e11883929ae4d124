/** What hosts found on their way to shares, hop by hop. */
export const sql = `
create table connection_tests (
  id uuid primary key, host_id uuid not null references hosts on delete cascade, share_id uuid not null references shares on delete cascade,
  protocol text not null, caller text not null, at timestamptz not null default now(), made_by text not null,
  hops jsonb not null, way_out jsonb
);
create index connection_tests_by_both on connection_tests (share_id, host_id, at desc);
create index connection_tests_by_host on connection_tests (host_id);
create trigger tell_new after insert on connection_tests referencing new table as changed for each statement execute function tell_rows();
`
