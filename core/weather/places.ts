/** Port Larkspur, where the shop is: degrees north and east. */
export const home = { latitude: 50.4, longitude: -4.1 } as const
