/** By which ways hosts see what systems show them, and at which controller each way ends. */
export const sql = `
alter table ports add column controller_id uuid references controllers on delete set null;
create table host_paths (
  host_id uuid not null references hosts on delete cascade, system_id uuid not null references systems on delete cascade,
  naa text not null, lun int not null, paths jsonb not null, since timestamptz not null,
  primary key (host_id, system_id, naa)
);
create index host_paths_by_disk on host_paths (naa);
create trigger tell_new after insert on host_paths referencing new table as changed for each statement execute function tell_rows();
create trigger tell_changed after update on host_paths referencing old table as was new table as changed for each statement execute function tell_rows();
create trigger tell_gone after delete on host_paths referencing old table as changed for each statement execute function tell_rows();
`
