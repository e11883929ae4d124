/** How the promises of each class were kept when they were looked at last: told at once, however many volumes stand under it. */
export const sql = `
create table promise_looks (
  class_id uuid primary key references service_classes on delete cascade, looked_at timestamptz not null,
  volumes int not null check (volumes > 0), promises jsonb not null
);
`
