import { Zones, type NameRecord } from './Zones'

/** Addresses that the museum shows outside, in a range that is kept for examples. Source: RFC 5737. */
const shownNetwork = '203.0.113'

/** What the outside is told of the zones: names lead to addresses before the border, and no way leads back. */
export class OutsideZones extends Zones {
  override all(): NameRecord[] {
    return super.all().flatMap(record => {
      if (record.type === 'CNAME') return [record]
      const last = record.type === 'A' ? /^10\.\d+\.\d+\.(\d+)$/.exec(record.data)?.[1] : undefined
      return last === undefined ? [] : [{ ...record, data: `${shownNetwork}.${last}` }]
    })
  }

  override zoneOf(name: string): string | undefined {
    const zone = super.zoneOf(name)
    return zone?.endsWith('.arpa') === true ? undefined : zone
  }

  /** Nothing is changed from there. */
  override change(): void {}
}
