import { number } from '../rule'

export const voltages = {
  windowLowV: number(
    'Charge window, lowest',
    'V',
    14.2,
    [13, 15],
    'Most LFP makers ask for 14.2 V or more before the cells are full and balanced',
  ),
  windowHighV: number(
    'Charge window, highest',
    'V',
    14.6,
    [13.5, 15.5],
    '3.65 V a cell, the typical highest charge voltage',
  ),
  absoluteHighV: number(
    'Absolute highest voltage',
    'V',
    14.8,
    [14, 16],
    '3.70 V a cell. Above it, the BMS is close to cutting out',
  ),
  bmsOverVoltageV: number(
    'BMS over-voltage cut',
    'V',
    15,
    [14, 16],
    '3.75 V a cell, where the data sheet gives none',
  ),
  maxFloatV: number(
    'Highest float',
    'V',
    13.6,
    [13, 14.6],
    '3.40 V a cell. Above it, the battery stays full',
  ),
  balanceStartV: number(
    'Balancing starts at',
    'V',
    13.8,
    [13.2, 14.6],
    '3.45 V a cell, where most protection boards begin to balance',
  ),
  restLow: number(
    'Rest band, from state of charge',
    '%',
    30,
    [0, 60],
    'The flat part of the curve begins here',
  ),
  restHigh: number(
    'Rest band, to state of charge',
    '%',
    99,
    [70, 100],
    'A full battery settles here within hours',
  ),
} as const
