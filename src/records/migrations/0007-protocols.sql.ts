/** Which protocol a system is spoken to in: until now there was one. */
export const sql = `
alter table systems add column protocol text not null default 'redfish';
alter table probes add column protocol text not null default 'redfish';
`
