/** Minutes at volts, in the order driven, repeated while the engine runs. */
export type DriveTrace = readonly { readonly minutes: number; readonly volts: number }[]

/** Voltages of a computer-controlled alternator as they are often seen, at 12 V. */
export const driveTraces = {
  town: {
    title: 'Town, stop and go',
    trace: [
      { minutes: 3, volts: 12.6 },
      { minutes: 2, volts: 14.4 },
      { minutes: 1, volts: 15 },
      { minutes: 4, volts: 12.5 },
      { minutes: 2, volts: 13.4 },
    ],
  },
  motorway: {
    title: 'Motorway: long and steady',
    trace: [
      { minutes: 12, volts: 14.4 },
      { minutes: 25, volts: 12.8 },
      { minutes: 8, volts: 13.6 },
    ],
  },
  mountain: {
    title: 'Mountain: down and up',
    trace: [
      { minutes: 10, volts: 12.4 },
      { minutes: 6, volts: 15.1 },
      { minutes: 8, volts: 12.6 },
      { minutes: 5, volts: 14.8 },
    ],
  },
} as const satisfies Record<string, { readonly title: string; readonly trace: DriveTrace }>
