import type { DefineClassIntent } from '@/core/intents'

/** A class that promises what is given, and nothing else. */
const promising = (promised: Partial<DefineClassIntent> & { readonly name: string }): DefineClassIntent => ({
  ...{ classId: '', media: 'any', lossesSurvived: null, latencyMilliseconds: null, headroomPercent: null },
  ...{ copyWithinMinutes: null, defaultGroupId: '', holdingDays: null, snapshotRule: '', timeZone: 'Europe/Lisbon' },
  ...{ keepLast: null, hourly: null, daily: null, weekly: null, monthly: null, yearly: null },
  ...{ quietFrom: null, quietTo: null },
  ...promised,
})

/** What the museum promises of what stands on bittern: each class as it is drafted, and the volumes that are put under it. */
export const demoClasses: readonly { readonly intent: DefineClassIntent; readonly volumes: readonly string[] }[] = [
  {
    intent: promising({
      name: 'Nothing lost',
      lossesSurvived: 1,
      media: 'SSD',
      latencyMilliseconds: 1,
      headroomPercent: 20,
    }),
    volumes: ['ticket-desk-01', 'building-sensors-01'],
  },
  {
    intent: promising({ name: 'Working files', lossesSurvived: 2, latencyMilliseconds: 4, headroomPercent: 10 }),
    volumes: ['staff-homes-01', 'photo-studio-01'],
  },
  {
    intent: promising({ name: 'Archive', lossesSurvived: 2, latencyMilliseconds: 20, headroomPercent: 5 }),
    volumes: ['ct-scans-raw-01', 'ct-scans-raw-02', 'ct-scans-derived-01', 'field-recordings-01'],
  },
  {
    intent: promising({
      ...{ name: 'Desktops', lossesSurvived: 1, latencyMilliseconds: 2 },
      ...{ snapshotRule: 'FREQ=DAILY;BYHOUR=20', daily: 7 },
    }),
    volumes: ['reading-room-image-01'],
  },
]
