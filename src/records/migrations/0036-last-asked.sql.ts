/** When each volume was asked for something last. */
export const sql = `
alter table metric_series add column active_at timestamptz;
create index metric_series_by_idle on metric_series (active_at) where metric = 'requests' and recent_mean = 0;
`
