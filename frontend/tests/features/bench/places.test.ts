/** Arrows on the bench card go where the eye goes. */
import { describe, expect, it } from 'vitest'
import { keyOf, neighbour, type Direction } from '@/features/bench/places'

const singles = ['projection', 'string_length', 'fingerboard_length', 'fingerboard_radius', 'nut_spread', 'bridge_spread']
const right = { strings: 4, leftHanded: false, singles }
const left = { ...right, leftHanded: true }

function walk(from: string, steps: Direction[], grid = right): string {
  return steps.reduce((key, step) => neighbour(key, step, grid), from)
}

describe('arrows', () => {
  it('go across the strings and then to the single readings of the same height', () => {
    expect(walk('end_height:0', ['ArrowRight', 'ArrowRight', 'ArrowRight'])).toBe('end_height:3')
    expect(walk('end_height:3', ['ArrowRight'])).toBe('projection')
    expect(walk('slot_depth:3', ['ArrowRight'])).toBe('fingerboard_length')
  })

  it('go up and down the rows of one string', () => {
    expect(walk('end_height:2', ['ArrowDown', 'ArrowDown'])).toBe('slot_depth:2')
    expect(walk('slot_depth:2', ['ArrowUp'])).toBe('nut_height:2')
  })

  it('stay at the edges', () => {
    expect(walk('end_height:0', ['ArrowLeft'])).toBe('end_height:0')
    expect(walk('end_height:0', ['ArrowUp'])).toBe('end_height:0')
    expect(walk('slot_depth:1', ['ArrowDown'])).toBe('slot_depth:1')
    expect(walk('bridge_spread', ['ArrowDown', 'ArrowRight'])).toBe('bridge_spread')
  })

  it('come back from the single readings to the string that stands beside them', () => {
    expect(walk('projection', ['ArrowLeft'])).toBe('end_height:3')
    expect(walk('bridge_spread', ['ArrowLeft'])).toBe('slot_depth:3')
    expect(walk('projection', ['ArrowLeft'], left)).toBe('end_height:0')
  })

  it('are mirrored with a left-handed instrument, whose lowest string stands rightmost', () => {
    expect(walk('end_height:0', ['ArrowRight'], left)).toBe('projection')
    expect(walk('end_height:0', ['ArrowLeft'], left)).toBe('end_height:1')
  })

  it('know five strings', () => {
    expect(neighbour('end_height:3', 'ArrowRight', { ...right, strings: 5 })).toBe('end_height:4')
  })
})

describe('keys of places', () => {
  it('tell strings apart and leave singles alone', () => {
    expect(keyOf({ measure: 'end_height', position: 0 })).toBe('end_height:0')
    expect(keyOf({ measure: 'projection', position: null })).toBe('projection')
  })
})
