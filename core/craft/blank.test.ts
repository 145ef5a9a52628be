import { describe, expect, it } from 'vitest'
import { blanked, blanksOf } from './blank'

describe('blanking of a customer', () => {
  it('blanks whole words in all texts, and no keys', () => {
    const blank = blanksOf('Wren Tolhurst', ['wren@tern.example', 'PL 421', ''])
    expect(
      blanked(
        {
          'Wren Tolhurst': 'For Wren Tolhurst, wren@tern.example, PL 421.',
          list: ['Wren Tolhurstson', 3, null],
        },
        blank,
      ),
    ).toEqual({
      'Wren Tolhurst': 'For Erased customer, (erased), (erased).',
      list: ['Wren Tolhurstson', 3, null],
    })
  })

  it('leaves ids alone that happen to be a name, unless the name stands there alone', () => {
    const blank = blanksOf('shunt', [])
    expect([blank('shunt monitor'), blank('shunt'), blanksOf('Al', [])('Al wants it')]).toEqual([
      'shunt monitor',
      'Erased customer',
      'Al wants it',
    ])
  })

  it('takes signs of expressions as they are', () => {
    expect(blanksOf('J. (Joe) Pike+Sons', [])('Boat of J. (Joe) Pike+Sons!')).toBe('Boat of Erased customer!')
  })
})
