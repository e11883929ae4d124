/** Secrets that drafts name without holding them, and by which hosts' agents know who asks. */
export const sql = `
create table kept_secrets (
  id uuid primary key, sealed bytea not null, purpose text not null, made_by text not null,
  made_at timestamptz not null default now(), used_at timestamptz
);
create index kept_secrets_unused on kept_secrets (made_at) where used_at is null;
alter table hosts add column agent_secret_id uuid references kept_secrets on delete set null;
`
