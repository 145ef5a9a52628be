import { formatQuantity as q } from '../../units/format'
import { check, number, word } from '../check'
import { arrayW } from '../system'

export const coldVoc = check({
  id: 'solar.cold-voc',
  title: 'Panel voltage in the cold',
  about: 'solar',
  why: 'Panels give their highest voltage on a cold bright morning; a controller that was just within its limit dies then.',
  judge({ lane: { solar }, name }, { one }) {
    const coldC = one.place.coldestC
    const factor = 1 + (solar.vocPerC / 100) * Math.max(0, 25 - coldC)
    const volts = solar.openCircuitV * solar.series * factor
    const over = volts > solar.maxPvV
    const side = over && solar.series > 1 && solar.openCircuitV * factor <= solar.maxPvV
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number(`panels at ${q(coldC, '°C')}`, volts, 'V'), number('controller allows', solar.maxPvV, 'V')],
      limit: solar.$origin('maxPvV'),
      formula: () => `${solar.series} × ${q(solar.openCircuitV, 'V')} × (1 + ${q(solar.vocPerC, '%/°C')} × ${q(25 - coldC, 'Δ°C')}) = ${q(volts, 'V')}`,
      summary: () => `${name} reaches ${q(volts, 'V')} in the cold; its controller allows ${q(solar.maxPvV, 'V')}.`,
      remedies: !over ? [] : [...(side ? [{ id: 'solar.in-parallel', on: solar.$path } as const] : []), { id: 'solar.controller', on: solar.$path, value: Math.ceil(volts * 1.1) }],
    }
  },
})

export const current = check({
  id: 'solar.current',
  title: 'Controller current',
  about: 'solar',
  why: 'A controller that is too small throws the best hours of the day away, or cooks in its locker.',
  judge({ lane: { solar }, name }, { bank }) {
    const amps = arrayW(solar) / bank.lowV
    const over = amps > solar.ratedA
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('panels give', amps, 'A'), number('controller rated', solar.ratedA, 'A')],
      limit: solar.$origin('ratedA'),
      formula: () => `${q(arrayW(solar), 'W')} ÷ ${q(bank.lowV, 'V')} = ${q(amps, 'A')}`,
      summary: () => `${name} can give ${q(amps, 'A')}; its controller is rated ${q(solar.ratedA, 'A')}.`,
      remedies: over ? [{ id: 'solar.larger', on: solar.$path, value: Math.ceil(amps / 5) * 5 }] : [],
    }
  },
})

export const sourceVoltage = check({
  id: 'source.voltage',
  title: 'Regulator of the source',
  about: 'source',
  why: 'A regulator set for lead either never fills the battery or passes its limit.',
  judge({ lane: { source }, name }, { bank }) {
    const volts = source.regulatorV
    const [over, under] = [volts > bank.highV, volts < bank.lowV]
    return {
      verdict: over ? 'does-not-suit' : under ? 'suits-once-changed' : 'suits',
      compared: [number('regulator holds', volts, 'V'), number(under ? 'charge at least' : 'charge at most', under ? bank.lowV : bank.highV, 'V')],
      limit: bank.each.$origin(under ? 'chargeLowV' : 'chargeHighV'),
      formula: () => `window ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}; regulator ${q(volts, 'V')}`,
      summary: () => over ? `${name} holds ${q(volts, 'V')} and the battery allows ${q(bank.highV, 'V')}.`
        : under ? `${name} stops at ${q(volts, 'V')}, under the window from ${q(bank.lowV, 'V')}: it charges most of the way and never balances the cells.`
        : `${name} holds ${q(volts, 'V')}, inside the window.`,
      remedies: over ? [{ id: 'source.regulator', on: source.$path, value: bank.middleV }] : under ? [{ id: 'charger.top-up', on: source.$path }, { id: 'source.regulator', on: source.$path, value: bank.middleV }] : [],
    }
  },
})

const onOpening = { diversion: 'diversion load', brake: 'brake', none: 'nothing' } as const

export const unloaded = check({
  id: 'source.unloaded',
  title: 'If the battery cuts out',
  about: 'source',
  why: 'A turbine or shaft generator that loses its battery runs free: its voltage climbs until something burns.',
  judge({ lane: { source }, name }) {
    const safe = source.onDisconnect !== 'none'
    return {
      verdict: safe ? 'suits' : 'does-not-suit',
      compared: [word('takes over', onOpening[source.onDisconnect]), word('wanted', 'diversion or brake')],
      limit: { kind: 'physics', text: 'a generator without a load has no voltage of its own' },
      formula: () => `BMS opens → ${onOpening[source.onDisconnect]}`,
      summary: () => (safe ? `If the battery cuts out, a ${onOpening[source.onDisconnect]} holds ${name.replace(/^The /, 'the ')}.` : `If the battery cuts out, nothing holds ${name.replace(/^The /, 'the ')}.`),
      remedies: safe ? [] : [{ id: 'source.diversion', on: source.$path }],
    }
  },
})
