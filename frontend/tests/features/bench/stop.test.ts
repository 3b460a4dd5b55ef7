import { describe, expect, it } from 'vitest'
import { leaps, numberOf } from '@/features/bench/stop'

describe('what was typed', () => {
  it.each([
    ['5.9', 5.9],
    ['5,9', 5.9],
    ['.85', 0.85],
    ['327mm', 327],
    ['−0.3', -0.3],
    ['+2', 2],
  ])('%s is %d', (typed, value) => expect(numberOf(typed)).toBeCloseTo(value))
  it('is no number', () => expect(numberOf('x5')).toBeNull())
})

describe('a leap', () => {
  const cell = { likely: [2, 12.5] }
  it.each([
    ['1.99', true],
    ['2', false],
    ['12,5', false],
    ['57.5', true],
    ['x', false],
  ])('%s: %s', (typed, is) => expect(leaps(cell, typed)).toBe(is))
  it.each(['13.9.2', '5.7x5', '57.5.'])('is nothing for %s, which is no number: the server says so', (typed) => expect(leaps({ likely: [3, 8] }, typed)).toBe(false))
  it('is nothing where nothing is usual', () => expect(leaps({ likely: null }, '9999')).toBe(false))
})

describe('a length with its unit', () => {
  it.each([
    ['0.2165in', 5.4991],
    ['0.2165"', 5.4991],
    ['1 3/64 in', 26.5906],
    ['13/64', 5.1594],
    ['0,52 cm', 5.2],
    ['5.20 mm', 5.2],
    ['48 %', 48],
  ])('%s is %d', (typed, value) => expect(numberOf(typed)).toBeCloseTo(value, 3))

  it('does not stop where it is likely in mm', () => {
    expect(leaps({ likely: [3, 8] }, '0.2165in')).toBe(false)
    expect(leaps({ likely: [3, 8] }, '0.2165')).toBe(true)
  })
})
