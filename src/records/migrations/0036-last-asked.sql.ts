/** When each volume was asked for something last. */
export const sql = `
alter table metric_series add column active_at timestamptz;
`
