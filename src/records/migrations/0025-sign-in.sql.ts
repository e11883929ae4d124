/** What hosts are asked for where they log in, and the secrets that go with it. */
export const sql = `
alter table hosts add column sign_in text not null default 'nothing' check (sign_in in ('nothing', 'one-way', 'mutual'));
alter table hosts add column sign_in_secret_id uuid references kept_secrets on delete set null;
alter table hosts add column system_secret_id uuid references kept_secrets on delete set null;
`
