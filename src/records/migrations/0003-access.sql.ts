/** Who may sign in, and what they have set. */
export const sql = `
create table administrators (
  id uuid primary key, name text not null unique check (name ~ '^[A-Za-z0-9][A-Za-z0-9._@-]{0,62}$'), password_hash text not null,
  made_at timestamptz not null default now()
);
create table sessions (
  id uuid primary key, administrator_id uuid not null references administrators on delete cascade,
  opened_at timestamptz not null default now(), used_at timestamptz not null default now()
);
create index sessions_by_administrator on sessions (administrator_id);

create table sign_in_attempts (
  id bigint generated always as identity primary key, name text not null, address text not null, succeeded boolean not null,
  at timestamptz not null default now()
);
create index sign_in_attempts_recent on sign_in_attempts (at desc);

create table api_tokens (
  id uuid primary key, administrator_id uuid not null references administrators on delete cascade, name text not null,
  token_hash text not null unique, made_at timestamptz not null default now(), used_at timestamptz
);

create table settings (key text primary key, value jsonb not null);
insert into settings (key, value) values ('volume-naming', '"{group}-{purpose}-{nn}"'), ('holding-days', '7');
insert into settings (key, value) select 'first-sign-in', to_jsonb(upper(substr(md5(random()::text || clock_timestamp()::text), 1, 4) || '-' || substr(md5(random()::text), 1, 4)));
`
