import { expect, it } from 'vitest'
import { choleskyOf, forwardSolve } from './cholesky'

const of = (matrix: readonly (readonly number[])[], least = 0) =>
  choleskyOf(
    matrix.length,
    (i, k) => matrix[i]![k]!,
    () => least,
  )

it('the factor times itself is the matrix', () => {
  const matrix = [
    [4, 2, 0.6],
    [2, 5, 1],
    [0.6, 1, 3],
  ]
  const root = of(matrix)
  matrix.forEach((row, i) =>
    row.forEach((value, k) => {
      const least = Math.min(i, k)
      const product = Array.from({ length: least + 1 }, (_, m) => root[i]![m]! * root[k]![m]!)
      expect(product.reduce((a, b) => a + b, 0)).toBeCloseTo(value, 12)
    }),
  )
})

it('a singular matrix keeps its least pivot', () => {
  const root = of(
    [
      [1, 1],
      [1, 1],
    ],
    0.25,
  )
  expect(root[1]![1]).toBe(0.5)
})

it('a triangle is solved from the first row down', () => {
  // 2a = 4, a + 3b = 8.
  expect(forwardSolve([[2], [1, 3]], [4, 8])).toEqual([2, 2])
})
