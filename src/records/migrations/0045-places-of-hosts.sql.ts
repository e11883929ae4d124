/** Where hosts stand: the nearer a pool, the better the place for what they are to see. */
export const sql = `
alter table hosts add column site_id uuid references sites on delete set null;
`
