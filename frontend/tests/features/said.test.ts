import { expect, it } from 'vitest'
import type { BenchSheet } from '@/api'
import { fieldsOf } from '@/features/works/said'

function bass(...turns: number[]): BenchSheet {
  const amounts = turns.map((value, i) => ({ name: 'turns', value, side: i ? 'treble' : 'bass', position: null }))
  return { instrument: { string_names: ['E', 'A', 'D', 'G'], left_handed: true }, instruction: { amounts } } as unknown as BenchSheet
}

it('advises turns of wheels as the instruction says them', () => {
  const advised = (...turns: number[]) => fieldsOf('adjusters_turned', bass(...turns)).map((one) => one.advised)
  expect(advised(-1.63, 0.875)).toEqual(['−1 5/8', '7/8'])
  expect(advised(2.01, -0.5)).toEqual(['2', '−1/2'])
  expect(advised(0.02, 0.25)).toEqual(['', '1/4'])
})

it('has the strings of a left-handed nut as they lie on the card', () => {
  expect(fieldsOf('nut_filed', bass()).map((one) => one.at)).toEqual([3, 2, 1, 0])
})
