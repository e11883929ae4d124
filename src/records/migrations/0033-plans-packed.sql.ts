/**
 * Plans and intents are packed by LZ4, which takes less of a processor than the older way: plans of large clusters are 350 kB long and
 * written anew with every key that is pressed. What stands there already is read as it was packed. Source: PostgreSQL 15, "TOAST".
 */
export const sql = `
alter table changes alter column plan set compression lz4, alter column intent set compression lz4;
`
