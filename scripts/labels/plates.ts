import type { Chance } from '#core/commissioning/chance'
import type { PartKindId } from '#core/job/fields'
import { otherWords, plateWords, titles, type Language, type PlateKind, type PlateWord } from './words'

/** A row of a plate: a name and its text. A row without a name is a line of its own. */
export interface PlateRow {
  readonly name: string
  readonly value: string
}
export interface Plate {
  readonly kind: PlateKind
  /** The kind of part of a survey that it belongs to. */
  readonly part: PartKindId
  readonly language: Language
  readonly maker: string
  readonly title: string
  readonly rows: readonly PlateRow[]
  /** Its values, by field. */
  readonly truth: Readonly<Record<string, number | string>>
}

/** Parts of a survey that plates are of. */
const partOf: Readonly<Record<PlateKind, PartKindId>> = {
  candidate: 'candidate',
  houseBank: 'houseBank',
  startingBatteries: 'startingBatteries',
  chargers: 'chargers',
  links: 'links',
  controller: 'solar',
  panel: 'solar',
  inverters: 'inverters',
  alternators: 'alternators',
}

const makers = [
  'Brindle Cells',
  'Ternstrom Chargers',
  'Dotterel Electric',
  'Curlew Conversion',
  'Skylark Solar',
  'Pipit Marine',
]

/** Makes plates by chance. */
export class PlateMaker {
  private readonly pick: <T>(of: readonly T[]) => T
  private readonly comma: boolean
  private readonly space: string
  private readonly rows: PlateRow[] = []
  private readonly truth: Record<string, number | string> = {}

  constructor(
    private readonly chance: Chance,
    private readonly kind: PlateKind,
    private readonly language: Language,
  ) {
    this.pick = (of) => of[Math.floor(chance() * of.length)]!
    this.comma = language !== 'en' && chance() < 0.6
    this.space = chance() < 0.6 ? ' ' : ''
  }

  make(): Plate {
    const { kind, language } = this
    const title = this.pick(titles[kind][language])
    this.content[kind](title)
    return {
      kind,
      part: partOf[kind],
      language,
      maker: this.pick(makers),
      title,
      rows: this.rows,
      truth: this.truth,
    }
  }

  private number(value: number, digits = value % 1 === 0 ? 0 : 1): string {
    const text = value.toFixed(digits)
    return this.comma ? text.replace('.', ',') : text
  }
  private q(value: number, unit: string, digits?: number): string {
    return `${this.number(value, digits)}${this.space}${unit}`
  }
  private say(word: PlateWord, value: string): void {
    this.rows.push({ name: this.pick(plateWords[word][this.language]), value })
  }
  private maybe(share: number, then: () => void): void {
    if (this.chance() < share) then()
  }
  private range(low: number, high: number, unit: string): string {
    const between = this.pick([' to ', ' – ', '...', '…', ' ~ '].slice(this.language === 'en' ? 0 : 1))
    const [a, b] = [
      this.number(low),
      high > 0 && low < 0 && this.chance() < 0.4 ? `+${this.number(high)}` : this.number(high),
    ]
    return this.chance() < 0.3
      ? `${a}${this.space}${unit}${between}${b}${this.space}${unit}`
      : `${a}${between}${b}${this.space}${unit}`
  }
  private identity(stem: string, size: string): void {
    const model = `${stem}-${size}${this.pick(['', 'H', 'S', 'X', 'LT'])}`
    this.maybe(0.8, () => {
      this.say('model', model)
      this.truth.model = model
    })
    this.maybe(0.7, () => {
      const serial = `${this.pick(['', 'P', 'B', 'K', 'LT'])}${Math.floor(1e6 + this.chance() * 8.9e6)}`
      this.say('serial', serial)
      this.truth.serial = serial
    })
  }
  private noise(): void {
    this.maybe(0.5, () => this.rows.push({ name: '', value: this.pick(otherWords[this.language]) }))
    this.maybe(0.3, () =>
      this.rows.push({
        name: '',
        value: this.pick(['UN3480', '2026-03', '12/2025', 'Class II', 'Lot 26-114', 'Rev. C']),
      }),
    )
  }
  private ingress(): void {
    this.maybe(0.4, () => {
      const printed = this.pick(['IP65', 'IP67', 'IP54', 'IP 65'])
      if (this.kind === 'candidate') this.truth.ingress = printed === 'IP67' ? 'immersion' : 'splash'
      this.rows.push({ name: '', value: printed })
    })
  }
  private system(): 12 | 24 | 48 {
    return this.pick([12, 12, 12, 24, 24, 48] as const)
  }
  private dc = (): string => this.pick(['', '', ' DC', 'DC', ' d.c.'])

  private readonly content: Readonly<Record<PlateKind, (title: string) => void>> = {
    candidate: () => {
      const system = this.system()
      const nominal = { 12: 12.8, 24: 25.6, 48: 51.2 }[system]
      const ah = this.pick([50, 100, 105, 150, 200, 230, 280, 300, 314])
      const { truth } = this
      truth.nominalV = String(system)
      truth.ahEach = ah
      truth.chemistry = 'lfp'
      this.identity(this.pick(['BRI', 'PIP', 'LFP']), String(ah))
      if (this.chance() < 0.25)
        this.rows.push({
          name: '',
          value: `${this.q(nominal, 'V')} ${this.q(ah, 'Ah')} ${this.q(Math.round(nominal * ah), 'Wh')}`,
        })
      else {
        this.say('nominal', this.q(nominal, 'V'))
        this.say(
          'capacity',
          this.chance() < 0.3
            ? `${this.q(ah, 'Ah')} / ${this.q(Math.round(nominal * ah), 'Wh')}`
            : this.q(ah, 'Ah'),
        )
        this.maybe(0.6, () =>
          this.say(
            'energy',
            this.chance() < 0.3
              ? this.q((nominal * ah) / 1000, 'kWh', 2)
              : this.q(Math.round(nominal * ah), 'Wh'),
          ),
        )
      }
      this.maybe(0.85, () => {
        const times = system / 12
        const high = this.pick([14.4, 14.6]) * times
        truth.chargeHighV = Number(high.toFixed(1))
        if (this.chance() < 0.4) {
          const low = 14.2 * times
          truth.chargeLowV = Number(low.toFixed(1))
          this.say('chargeV', this.range(low, high, 'V'))
        } else this.say('chargeV', this.q(high, 'V', 1))
      })
      this.maybe(0.3, () => {
        truth.bmsUnderV = 10 * (system / 12)
        this.say('cutOffV', this.q(10 * (system / 12), 'V', this.pick([0, 1])))
      })
      this.maybe(0.8, () => {
        truth.largestChargeA = this.pick([50, 100, 150, 200])
        this.say('mostChargeA', this.q(truth.largestChargeA, 'A'))
      })
      this.maybe(0.3, () => {
        truth.recommendedChargeA = this.pick([20, 40, 60])
        this.say('goodChargeA', this.q(truth.recommendedChargeA, 'A'))
      })
      this.maybe(0.8, () => {
        truth.continuousA = this.pick([100, 120, 150, 200])
        this.say('dischargeA', this.q(truth.continuousA, 'A'))
      })
      this.maybe(0.5, () => {
        truth.peakA = this.pick([200, 280, 300, 400, 500])
        const withTime = this.chance() < 0.7
        if (withTime) truth.peakS = this.pick([3, 5, 10, 30])
        const time = withTime
          ? this.pick([` (${truth.peakS}${this.space}s)`, ` / ${truth.peakS} s`, ` ${truth.peakS} s`])
          : ''
        this.say('peakA', this.q(truth.peakA, 'A') + time)
      })
      this.maybe(0.7, () => {
        truth.coldLimitC = this.pick([0, 0, 5, -10])
        truth.chargeHotC = this.pick([45, 50, 55])
        this.say('chargeC', this.range(truth.coldLimitC, truth.chargeHotC, '°C'))
      })
      this.maybe(0.6, () => {
        truth.dischargeColdC = this.pick([-20, -30])
        truth.dischargeHotC = this.pick([55, 60])
        this.say('dischargeC', this.range(truth.dischargeColdC, truth.dischargeHotC, '°C'))
      })
      this.maybe(0.2, () => this.say('storageC', this.range(-10, 35, '°C')))
      this.maybe(0.3, () => {
        truth.weightKg = this.pick([11.5, 12.2, 19.8, 22, 23.5, 31])
        this.say('weight', this.q(truth.weightKg, 'kg'))
      })
      this.maybe(0.2, () => {
        truth.cycles = this.pick([2500, 3500, 4000, 6000])
        this.say('cycles', String(truth.cycles))
      })
      this.ingress()
      this.noise()
    },
    houseBank: (title) => {
      const [system, ah] = [this.pick([12, 12, 12, 6] as const), this.pick([60, 85, 100, 110, 140, 180, 220])]
      this.truth.ahEach = ah
      this.truth.chemistry = /gel/i.test(title) ? 'gel' : 'agm'
      this.identity(this.pick(['DC', 'TRX', 'MB']), String(ah))
      if (this.chance() < 0.5)
        this.rows.push({
          name: '',
          value: `${this.q(system, 'V')} ${this.q(ah, 'Ah')}${this.pick(['', ' C20', ' (C20)', ' 20HR'])}`,
        })
      else {
        this.say('nominal', this.q(system, 'V'))
        this.say('capacity', `${this.q(ah, 'Ah')}${this.pick(['', ' (C20)', ' @ 20 h'])}`)
      }
      this.maybe(0.3, () => this.say('float', this.range(13.5, 13.8, 'V')))
      this.maybe(0.5, () => {
        this.truth.weightEachKg = this.pick([18, 24.5, 28, 31, 41.5, 62])
        this.say('weight', this.q(this.truth.weightEachKg, 'kg'))
      })
      this.noise()
    },
    startingBatteries: (title) => {
      const [ah, cca] = [this.pick([44, 60, 70, 80, 95, 110]), this.pick([420, 540, 640, 680, 760, 850, 950])]
      Object.assign(this.truth, { nominalV: '12', ah, cca })
      if (/agm/i.test(title)) this.truth.chemistry = 'agm'
      this.identity('SB', String(ah))
      const way = this.chance()
      if (way < 0.4)
        this.rows.push({ name: '', value: `${this.q(12, 'V')} ${this.q(ah, 'Ah')} ${this.q(cca, 'A')} (EN)` })
      else if (way < 0.6)
        this.rows.push({ name: '', value: `${this.q(12, 'V')} ${this.q(ah, 'Ah')} ${cca} CCA` })
      else {
        this.say('nominal', this.q(12, 'V'))
        this.say('capacity', this.q(ah, 'Ah'))
        this.say('cca', `${this.q(cca, 'A')}${this.pick(['', ' (EN)'])}`)
      }
      this.noise()
    },
    chargers: () => {
      const system = this.pick([12, 12, 24] as const)
      const amps = this.pick([5, 10, 15, 20, 25, 30, 40, 60])
      const times = system / 12
      Object.assign(this.truth, { nominalV: String(system), ratedA: amps })
      this.identity(this.pick(['TER', 'DOT', 'CH']), `${system}/${amps}`)
      this.say(
        'input',
        `${this.pick(['220-240', '100-240', '230'])}${this.space}V${this.pick(['~', ' AC', 'AC'])} 50/60${this.space}Hz ${this.q(this.pick([0.8, 1.5, 2.4, 4.2]), 'A')}`,
      )
      const separate = this.chance() < 0.4
      if (separate) {
        this.say('output', this.q(system, 'V') + this.dc())
        this.say('ratedA', this.q(amps, 'A'))
      } else
        this.say('output', `${this.q(system, 'V')}${this.dc()} ${this.pick(['', '/ '])}${this.q(amps, 'A')}`)
      this.stages(times, 0.8)
      this.maybe(0.4, () => {
        this.truth.efficiency = this.pick([85, 88, 90, 92, 94])
        this.say('efficiency', this.q(this.truth.efficiency, '%'))
      })
      this.maybe(0.4, () => this.say('ambientC', this.range(-20, 50, '°C')))
      this.ingress()
      this.noise()
    },
    links: () => {
      const [from, to] = this.pick([
        [12, 12],
        [12, 12],
        [12, 12],
        [24, 12],
        [12, 24],
        [24, 24],
      ] as const)
      const amps = this.pick([15, 20, 25, 30, 40, 50, 60])
      Object.assign(this.truth, { kind: 'dcdc', inputV: String(from), outputV: String(to), ratedA: amps })
      this.identity(this.pick(['CUR-D', 'DD', 'BB']), `${from}${to}-${amps}`)
      if (this.chance() < 0.5) {
        this.say('input', `${this.q(from, 'V')}${this.dc()}`)
        this.say('output', `${this.q(to, 'V')}${this.dc()} ${this.q(amps, 'A')}`)
      } else {
        const times = from / 12
        this.say('input', `${this.range(11 * times, 16 * times, 'V')}${this.dc()}`)
        this.say('output', this.q(to, 'V') + this.dc())
        this.say('ratedA', this.q(amps, 'A'))
      }
      this.stages(to / 12, 0.5)
      this.maybe(0.4, () => this.say('ambientC', this.range(-20, 50, '°C')))
      this.ingress()
      this.noise()
    },
    controller: (title) => {
      const amps = this.pick([10, 15, 20, 30, 35, 50])
      const pv = /mppt/i.test(title) ? this.pick([50, 75, 100, 150]) : this.pick([25, 50])
      Object.assign(this.truth, {
        controller: /mppt/i.test(title) ? 'mppt' : 'pwm',
        ratedA: amps,
        maxPvV: pv,
      })
      this.identity(this.pick(['SKY-M', 'SR']), `${pv}/${amps}`)
      this.rows.push({
        name: this.pick(plateWords.nominal[this.language]),
        value: this.pick(['12/24 V', '12 V / 24 V', '12V/24V']),
      })
      this.say('pvV', this.q(pv, 'V'))
      this.say('ratedA', this.q(amps, 'A'))
      this.stages(1, 0.5)
      this.maybe(0.4, () => this.say('ambientC', this.range(-30, 60, '°C')))
      this.ingress()
      this.noise()
    },
    panel: () => {
      const [watts, voc] = [
        this.pick([100, 110, 120, 140, 160, 175, 200, 410]),
        this.pick([21.6, 22.5, 24.3, 37.2]),
      ]
      const vmp = Number((voc * 0.83).toFixed(1))
      const imp = Number((watts / vmp).toFixed(2))
      const isc = Number((imp * 1.07).toFixed(2))
      Object.assign(this.truth, {
        panelW: watts,
        openCircuitV: voc,
        maxPowerV: vmp,
        shortCircuitA: isc,
        maxPowerA: imp,
      })
      this.identity('SKY-P', String(watts))
      this.say('panelW', this.q(watts, this.pick(['W', 'Wp'])))
      this.say('voc', this.q(voc, 'V'))
      this.say('isc', this.q(isc, 'A', 2))
      this.say('vmp', this.q(vmp, 'V', 1))
      this.say('imp', this.q(imp, 'A', 2))
      this.maybe(0.7, () => this.say('systemV', this.q(this.pick([600, 1000]), 'V')))
      this.maybe(0.4, () => {
        this.say('weight', this.q(this.pick([6.8, 8.2, 11]), 'kg'))
      })
      this.noise()
    },
    inverters: () => {
      const system = this.pick([12, 12, 24, 48] as const)
      const watts = this.pick([300, 600, 1000, 1200, 2000, 3000])
      Object.assign(this.truth, { nominalV: String(system), continuousW: watts })
      this.identity(this.pick(['CUR-S', 'INV']), `${system}/${watts}`)
      this.say('input', `${this.q(system, 'V')}${this.dc()}`)
      this.say('output', `230${this.space}V${this.pick(['~', ' AC'])} 50${this.space}Hz`)
      this.say('power', this.q(watts, 'W'))
      this.maybe(0.7, () => {
        this.truth.surgeW = watts * 2
        this.say('surge', this.q(watts * 2, 'W'))
      })
      this.maybe(0.5, () => {
        this.truth.efficiency = this.pick([88, 90, 92, 93])
        this.say('efficiency', this.q(this.truth.efficiency, '%'))
      })
      this.maybe(0.5, () => {
        this.truth.idleW = this.pick([6, 8, 12, 20])
        this.say('idle', this.q(this.truth.idleW, 'W'))
      })
      this.noise()
    },
    alternators: () => {
      const system = this.pick([12, 12, 24] as const)
      const [amps, printed] = [this.pick([55, 70, 90, 110, 120, 150]), { 12: 14, 24: 28 }[system]]
      Object.assign(this.truth, { nominalV: String(system), ratedA: amps })
      this.identity(this.pick(['PIP-A', 'ALT']), String(amps))
      const way = this.chance()
      if (way < 0.4)
        this.rows.push({
          name: '',
          value: `${this.q(printed, 'V')} ${this.pick(['', '/ '])}${this.q(amps, 'A')}`,
        })
      else {
        this.say('nominal', this.q(way < 0.7 ? system : printed, 'V'))
        this.rows.push({
          name: this.pick(plateWords.ratedA[this.language].slice(1, 2)),
          value: this.q(amps, 'A'),
        })
      }
      this.noise()
    },
  }

  private stages(times: number, share: number): void {
    this.maybe(share, () => {
      const absorption = Number((this.pick([14.2, 14.4, 14.6]) * times).toFixed(1))
      const float = Number((this.pick([13.5, 13.6, 13.8]) * times).toFixed(1))
      Object.assign(this.truth, { absorptionV: absorption, floatV: float })
      this.say('absorption', this.q(absorption, 'V', 1))
      this.say('float', this.q(float, 'V', 1))
      this.maybe(0.25, () => {
        const equalise = Number((this.pick([15.5, 15.8, 16]) * times).toFixed(1))
        this.truth.equaliseV = equalise
        this.say('equalise', this.q(equalise, 'V', 1))
      })
    })
  }
}
