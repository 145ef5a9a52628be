// cspell:disable
import { describe, expect, it } from 'vitest'
import { foreignTable, inOwnColumns } from './foreign-table'
import { readShelfCsv, shelfColumns, writeShelfCsv } from './shelf-csv'

const batteries = shelfColumns('batteries')
const guessed = (header: string, columns = batteries, part: 'candidate' | 'chargers' = 'candidate') =>
  foreignTable(`${header}\n`, columns, part).columns.map(({ guess }) => guess)
const taken = (text: string) => {
  const table = foreignTable(text, batteries, 'candidate')
  const chosen = table.columns.map(({ guess }) => guess)
  return readShelfCsv(inOwnColumns(table, batteries, { chosen, part: 'candidate' }), 'batteries')
}

describe('a table that somebody else made', () => {
  it('has its columns found by their words, in six languages', () => {
    expect(
      guessed(
        'SKU,Brand,Product,Nominal voltage (V),Capacity [Ah],Max. charge current (A),Weight (kg),Price',
      ),
    ).toEqual(['code', 'maker', 'name', 'nominalV', 'ahEach', 'largestChargeA', 'weightKg', 'price'])
    expect(
      guessed(
        'Artikel-Nr.;Hersteller;Bezeichnung;Nennspannung;Kapazität;Max. Ladestrom;Dauerentladestrom;Gewicht;Breite [mm]',
      ),
    ).toEqual([
      'code',
      'maker',
      'name',
      'nominalV',
      'ahEach',
      'largestChargeA',
      'continuousA',
      'weightKg',
      'widthMm',
    ])
    expect(
      guessed('Référence;Marque;Désignation;Tension nominale;Capacité;Courant de décharge;Poids;Prix'),
    ).toEqual(['code', 'maker', 'name', 'nominalV', 'ahEach', 'continuousA', 'weightKg', 'price'])
    expect(
      guessed(
        'Model,Output current (A),Absorption (V),Float,Efficiency (%),Weight (g)',
        shelfColumns('chargers'),
        'chargers',
      ),
    ).toEqual(['name', 'ratedA', 'absorptionV', 'floatV', 'efficiency', 'weightKg'])
  })

  it('tells the ends of a range apart, and guesses no column twice', () => {
    expect(
      guessed('Charge temp. min (°C),Charge temp. max (°C),Min. charge voltage,Max. charge voltage'),
    ).toEqual(['coldLimitC', 'chargeHotC', 'chargeLowV', 'chargeHighV'])
    expect(guessed('Capacity (Ah),Rated capacity (Ah),Colour')).toEqual(['ahEach', null, null])
  })

  it('is read in its own units, with options as people write them', () => {
    const { parts, problems } = taken(
      'SKU;Product;Chemistry;Nominal voltage;Capacity (Ah);Width (cm);Weight (g);Built-in heater\nB-1;Brindle one;LiFePO4;12,8 V;100;33;11500;ja\n',
    )
    expect(problems).toEqual([])
    expect(parts).toEqual([
      {
        line: 2,
        code: 'B-1',
        name: 'Brindle one',
        maker: '',
        values: {
          chemistry: 'lfp',
          nominalV: '12',
          ahEach: 100,
          widthMm: 330,
          weightKg: 11.5,
          heater: 'yes',
        },
      },
    ])
  })

  it('without codes gets them from the names; text that fits no field is reported with its line', () => {
    const { parts, problems } = taken(
      'Product,Capacity (Ah),Voltage\nBrindle 100 Ü,100,12\nBrindle 200,plenty,36\n',
    )
    expect(parts.map(({ code, name }) => [code, name])).toEqual([['Brindle-100-U', 'Brindle 100 Ü']])
    expect(problems.map(({ line, column }) => [line, column])).toEqual([
      [3, 'nominalV'],
      [3, 'ahEach'],
    ])
  })

  it('that is headed as our own needs no question', () => {
    expect(foreignTable(writeShelfCsv('batteries', []), batteries, 'candidate').isOwn).toBe(true)
    expect(foreignTable('SKU,Product\n', batteries, 'candidate').isOwn).toBe(false)
    expect(foreignTable('', batteries, 'candidate')).toMatchObject({ columns: [], lines: [], isOwn: false })
  })
})
