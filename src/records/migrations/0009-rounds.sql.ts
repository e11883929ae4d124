/** The daily look at the estate: when it was done, by whom, and how the estate stood then. */
export const sql = `
create table rounds (
  id uuid primary key,
  at timestamptz not null default now(),
  made_by text not null,
  note text not null default '',
  written_bytes numeric not null
);
create index rounds_latest on rounds (at desc);
create index changes_ended on changes (ended_at) where ended_at is not null;
create index findings_cleared on findings (cleared_at) where cleared_at is not null;
create trigger tell after insert on rounds for each statement execute function tell_estate();
`
