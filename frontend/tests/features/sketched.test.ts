/** Every figure of the shop has its place sketched, or stands here with the reason why it has none. */
import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { sketchOf } from '@/features/drawing/sketches'
import { sketchedAs } from '@/features/figures/sketched'

/** Shares, factors and sizes of parts are of no place. */
const WITHOUT = new Set(['neck_to_stop', 'max_wedge_at_heel', 'afterlength_divisor', 'post_diameter', 'top_thickness', 'slot_width_ratio', 'slot_fall', 'foot_spread_share'])

const figures = readFileSync('../backend/src/fidicula/tables/data/figure_measures.csv', 'utf8').trim().split('\n').slice(1).map((line) => line.split(',')[0] ?? '')

it.each(figures)('%s', (figure) => {
  const { measure, position } = sketchedAs(figure)
  expect(sketchOf(measure, position) !== null && sketchOf(measure, position) !== undefined).toBe(!WITHOUT.has(figure))
})
