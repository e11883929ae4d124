/** Of each moment that a class's schedule was due: of how many volumes of a system, and of how many a snapshot was taken. */
export const sql = `
create table snapshot_moments (
  class_id uuid not null references service_classes on delete cascade, system_id uuid not null references systems on delete cascade,
  due_at timestamptz not null, volumes int not null check (volumes > 0), taken int not null check (taken between 0 and volumes),
  primary key (class_id, system_id, due_at)
);
create index snapshot_moments_by_time on snapshot_moments (due_at);
`
