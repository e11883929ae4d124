/**
 * What plans, readings and journals state is packed by LZ4: packing a plan of 350 kB by the older way took longer than all else that
 * was written with it. What stands there already is read as it was packed. Source: PostgreSQL 15, "TOAST".
 */
export const sql = `
alter table changes alter column plan set compression lz4, alter column intent set compression lz4;
`
