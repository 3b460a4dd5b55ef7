/** What is read next: the cursor and the main button both go by this. */
import type { BenchSheet, Cell } from '@/api'
import { keyOf, type Place } from './places'
import type { Waiting } from './waiting'

/** How many readings of a place are on their way. */
export function onTheirWay(cell: Place, waiting: readonly Waiting[]): number {
  return waiting.filter(({ body }) => body.measure === cell.measure && (body.position ?? null) === cell.position).length
}

/** The places that the instruction asks for, in its order, each for as long as not all of its readings are on their way. */
export function stillAsked(sheet: BenchSheet | null, waiting: readonly Waiting[]): Cell[] {
  return (sheet?.instruction.read ?? []).flatMap((place) => {
    const cell = sheet?.cells.find((candidate) => keyOf(candidate) === keyOf(place))
    return cell && onTheirWay(cell, waiting) < place.times ? [cell] : []
  })
}

/** The place that comes next: the one in hand while it is asked for, else the next in the order asked, else the first. */
export function nextAsked(sheet: BenchSheet | null, waiting: readonly Waiting[], inHand: string): string | undefined {
  const order = (sheet?.instruction.read ?? []).map(keyOf)
  const keys = stillAsked(sheet, waiting).map(keyOf)
  if (keys.includes(inHand)) return inHand
  const here = order.indexOf(inHand)
  return keys.find((key) => order.indexOf(key) > here) ?? keys[0]
}
