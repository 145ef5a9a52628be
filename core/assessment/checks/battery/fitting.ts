import { capital, joinText, type Write } from '#core/units/format'
import { warmerPlace } from '#core/remedies/warmer-place'
import { check, number, word, type Judgement } from '#core/assessment/check'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Bank } from '#core/system/bank'
import type { System } from '#core/system/system'
import { placing } from '#core/system/more-batteries'

const other: RemedyRef = { id: 'battery.other', on: 'candidate' }

interface Size {
  readonly widthMm: number
  readonly depthMm: number
  readonly heightMm: number
}

/** `330 × 175 × 220 mm`: the unit once, at the end. */
function sizeWords({ widthMm, depthMm, heightMm }: Size, q: Write): string {
  const [width = '', depth = '', height = ''] = [widthMm, depthMm, heightMm].map((mm) => q(mm, 'mm'))
  const bare = (words: string): string => words.replace(/ .*/, '')
  return `${bare(width)} × ${bare(depth)} × ${height}`
}

const fit = check({
  id: 'battery.fit',
  title: 'Does it fit its place?',
  topic: 'fit in its place',
  about: 'battery',
  why: 'Measure the place before you order. A battery that does not fit costs a second trip.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one, rules } = system
    const { widthMm, depthMm, heightMm } = bank.each
    const placed = placing(system)
    const tall = heightMm > one.place.heightMm
    const turned = placed?.some((p) => p.turned) ?? false
    const size = (of: Size): string => sizeWords(of, q)
    return {
      verdict: placed ? 'suits' : 'does-not-suit',
      compared: tall
        ? [number('battery is high', heightMm, 'mm'), number('space is high', one.place.heightMm, 'mm')]
        : [
            word(
              bank.count > 1 ? `${bank.count} batteries` : 'battery',
              `${q(widthMm, 'mm')} × ${q(depthMm, 'mm')}`,
            ),
            word('space', `${q(one.place.widthMm, 'mm')} × ${q(one.place.depthMm, 'mm')}`),
          ],
      limit: one.place.$origin(tall ? 'heightMm' : 'widthMm'),
      formula: () =>
        joinText(
          `${bank.count} × ${size(bank.each)} with ${q(rules.airGapMm, 'mm')} of air in ${size(one.place)}: `,
          placed ? (turned ? 'fits, turned' : 'fits') : tall ? 'too high' : 'does not fit, even turned',
        ),
      summary: () =>
        placed
          ? joinText(
              bank.count > 1 ? `All ${bank.count} fit` : 'It fits',
              ` the space${turned ? ', turned by 90°' : ''}.`,
            )
          : tall
            ? `It is ${q(heightMm - one.place.heightMm, 'mm')} higher than the space.`
            : joinText(
                bank.count > 1 ? `${bank.count} of ${size(bank.each)} do` : `${size(bank.each)} does`,
                ` not fit ${size(one.place)} with air around it, even turned.`,
              ),
      remedies: placed ? [] : [other],
    }
  },
})

/** The limit for a change of weight, if it is not the payload. */
const afterWeighing = new Map<System['craft'], string>([
  ['vessel', 'Check the trim'],
  ['trailer', 'Weigh the load on the hitch again'],
])

const weight = check({
  id: 'battery.weight',
  title: 'Weight',
  about: 'battery',
  why: joinText(
    'A tray made for one weight can break under another. ',
    'Less weight in the stern or at the hitch changes the trim.',
  ),
  judge(_subject, { bank, one, craft, q }) {
    const old = one.houseBank.weightEachKg * one.houseBank.series * one.houseBank.parallel
    const { loadLimitKg } = one.place
    const carries = loadLimitKg ?? old
    const stays = one.use.mixed === 'replaced' ? 0 : old
    const there = bank.kg + stays
    const over = there > carries
    const change = there - old
    const weigh = stays > 0 ? 'New and old together weigh' : 'The new bank weighs'
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [
        number(stays > 0 ? 'new and old' : 'new bank', there, 'kg'),
        number(loadLimitKg === null ? 'tray carries now' : 'tray carries', carries, 'kg'),
      ],
      limit: loadLimitKg === null ? one.houseBank.$origin('weightEachKg') : one.place.$origin('loadLimitKg'),
      formula: () =>
        joinText(
          `${bank.count} × ${q(bank.each.weightKg, 'kg')} = ${q(bank.kg, 'kg')}; `,
          `old bank ${q(old, 'kg')}: `,
          change <= 0 ? `${q(-change, 'kg')} lighter` : `${q(change, 'kg')} heavier`,
        ),
      summary: () =>
        over
          ? `${weigh} ${q(there, 'kg')} and the tray carries ${q(carries, 'kg')}.`
          : joinText(
              `${weigh} ${q(there, 'kg')}, ${q(Math.abs(change), 'kg')} `,
              change <= 0 ? 'less' : 'more',
              ' than the old.',
            ),
      remedies: over ? [{ id: 'place.carry', on: 'place', value: Math.ceil(there) }] : [],
      cautions: () =>
        Math.abs(change) > 15
          ? [
              joinText(
                `${afterWeighing.get(craft) ?? 'The payload changes too'}: `,
                `${q(Math.abs(change), 'kg')} ${change < 0 ? 'less' : 'more'} than before.`,
              ),
            ]
          : [],
    }
  },
})

const placeWords = {
  cabin: 'the cabin',
  locker: 'an outside locker',
  engine: 'the engine space',
  bilge: 'the bilge',
} as const

const place = check({
  id: 'battery.place',
  title: 'Place',
  about: 'battery',
  why: 'Heat ages the cells and water damages the BMS. Most makers forbid the engine space.',
  judge(_subject, system) {
    const { bank, one, q } = system
    const { where, coldestC, hottestC, ingress } = one.place
    const { dischargeColdC, dischargeHotC } = bank.each
    const wet =
      ingress === 'wet'
        ? bank.each.ingress !== 'immersion'
        : ingress === 'damp' && bank.each.ingress === 'none'
    if (where === 'engine' && bank.each.engineSpace === 'no') return forbiddenEngineSpace(bank)
    if (coldestC < dischargeColdC || hottestC > dischargeHotC) return outOfWorkingRange(system)
    return {
      verdict: wet ? 'suits-once-changed' : 'suits',
      compared: wet
        ? [
            word('place', ingress === 'wet' ? 'may stand in water' : 'splash or dust'),
            word('housing keeps out', bank.each.ingress === 'none' ? 'nothing stated' : 'splash and dust'),
          ]
        : [
            word('place', placeWords[where]),
            word('temperature', `${q(coldestC, '°C')} to ${q(hottestC, '°C')}`),
          ],
      limit: bank.each.$origin(wet ? 'ingress' : 'dischargeColdC'),
      formula: () =>
        joinText(
          `${q(dischargeColdC, '°C')} ≤ ${q(coldestC, '°C')}, `,
          `${q(hottestC, '°C')} ≤ ${q(dischargeHotC, '°C')}; `,
          wet ? 'water or dust can reach it' : 'dry enough for its housing',
        ),
      summary: () =>
        wet
          ? `Water or dust can reach it in ${placeWords[where]}. Its housing does not keep them out.`
          : `${capital(placeWords[where])} suits it, ${q(coldestC, '°C')} to ${q(hottestC, '°C')}.`,
      remedies: wet ? [{ id: 'place.dry', on: 'place' }, other] : [],
    }
  },
})

function forbiddenEngineSpace({ each }: Bank): Judgement {
  return {
    verdict: 'suits-once-changed',
    compared: [word('place', placeWords.engine), word('maker permits', 'not there')],
    limit: each.$origin('engineSpace'),
    formula: () => 'engine space ≠ permitted',
    summary: () => 'The battery would be in the engine space, which its maker forbids.',
    remedies: [{ id: 'place.move', on: 'place' }, other],
  }
}

/** The place is too cold or too hot for the battery to work at all. */
function outOfWorkingRange(system: System): Judgement {
  const { bank, one, q } = system
  const { coldestC, hottestC } = one.place
  const { dischargeColdC, dischargeHotC } = bank.each
  const cold = coldestC < dischargeColdC
  const [celsius, limitC] = cold ? [coldestC, dischargeColdC] : [hottestC, dischargeHotC]
  return {
    verdict: 'does-not-suit',
    compared: [
      number(cold ? 'coldest' : 'hottest', celsius, '°C'),
      number(cold ? 'works from' : 'works up to', limitC, '°C'),
    ],
    limit: bank.each.$origin(cold ? 'dischargeColdC' : 'dischargeHotC'),
    formula: () => `${q(celsius, '°C')} ${cold ? '<' : '>'} ${q(limitC, '°C')}`,
    summary: () =>
      joinText(
        `The place reaches ${q(celsius, '°C')}; the battery works `,
        cold ? 'from' : 'up to',
        ` ${q(limitC, '°C')}: it would cut out.`,
      ),
    remedies: cold ? [...warmerPlace(limitC, system), other] : [other],
  }
}

const hot = check({
  id: 'battery.hot',
  title: 'Charging in the heat',
  about: 'battery',
  why: 'Above its limit the battery refuses every source, on the days when sun and engine could fill it.',
  judge(_subject, { bank, one, q }) {
    const { hottestC } = one.place
    const { chargeHotC } = bank.each
    const over = hottestC > chargeHotC
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('hottest', hottestC, '°C'), number('charges up to', chargeHotC, '°C')],
      limit: bank.each.$origin('chargeHotC'),
      formula: () => `${q(hottestC, '°C')} ${over ? '>' : '≤'} ${q(chargeHotC, '°C')}`,
      summary: () =>
        joinText(
          `The place reaches ${q(hottestC, '°C')}; the battery accepts charge up to ${q(chargeHotC, '°C')}`,
          over ? ', so it does not charge on hot days' : '',
          '.',
        ),
      remedies: over ? [{ id: 'place.cooler', on: 'place', value: chargeHotC }, other] : [],
    }
  },
})

const certified = { none: 0, cell: 1, both: 2 } as const
const certificateWords = { none: 'none', cell: 'for the cells', both: 'for cells and pack' } as const

const certificates = check({
  id: 'battery.certificates',
  title: 'Certificates',
  about: 'battery',
  why: 'After a fire the first question is which tests the cells and the pack passed. Insurers ask before.',
  judge(_subject, { bank, rules, craft }) {
    const afloat = craft === 'vessel'
    const asked = afloat ? rules.certificatesVessel : rules.certificatesVehicle
    const named = bank.each.certificates
    const enough = certified[named] >= certified[asked]
    return {
      verdict: enough ? 'suits' : 'does-not-suit',
      compared: [word('named', certificateWords[named]), word('asked for', certificateWords[asked])],
      limit: { kind: 'rule', text: `shop rule: certificates asked for, ${afloat ? 'vessels' : 'vehicles'}` },
      formula: () => `named ${certificateWords[named]}, asked ${certificateWords[asked]}`,
      summary: () =>
        enough
          ? `Its maker names certificates ${certificateWords[named]}.`
          : joinText(
              'Its maker names ',
              named === 'none' ? 'no certificates' : 'certificates for the cells alone',
              `; the shop requires them ${certificateWords[asked]}.`,
            ),
      remedies: enough ? [] : [other],
      cautions: () => [
        'Ask the owner’s insurer which certificates it requires. Keep a copy with the papers.',
      ],
    }
  },
})

export const checks = [fit, weight, place, hot, certificates] as const
