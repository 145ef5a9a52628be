/**
 * Output share of a DC-DC charger at the temperature of its place, °C: full to 40 °C, 60 % from 60 °C, a
 * straight line between. An engineering default.
 */
export const deratedShare = (celsius: number): number =>
  celsius <= 40 ? 1 : Math.max(0.6, 1 - (0.4 * (celsius - 40)) / 20)
