/** Lists as somebody has named them, for all who work here. */
export const sql = `
create table saved_views (
  id uuid primary key,
  path text not null,
  name text not null,
  query text not null,
  made_by text not null,
  made_at timestamptz not null default now(),
  unique (path, name)
);
`
