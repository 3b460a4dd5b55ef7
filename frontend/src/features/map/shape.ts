/** The instrument from the front in its true proportions, in the map's own pixels; the nut is up, the bass side left. */
import type { Family } from '@/api'
import { bodyOutline, BUILDS, fHoles } from '@/shared/build'

/** Of the map: the instrument fills this height, its middle stands here. [px] */
export const MAP = { width: 232, height: 516, middle: 100, top: 5, tall: 506 } as const

type Point = readonly [number, number]

export interface Shape {
  x: (across: number) => number
  outline: string
  head: string
  scroll: { at: Point; r: number }
  pegs: { from: Point; to: Point }[]
  /** Worm and wheel on a plate, in the place of pegs. */
  hasMachines: boolean
  nut: { y: number; half: number }
  board: string
  neck: string
  bridge: { y: number; half: number }
  post: { at: Point; r: number }
  bar: string
  strings: string[]
  tailpiece: string
  tailEnd: Point
  endpin: Point | null
  holes: { path: string; eyes: Point[] }[]
  /** Where labels stand: widest place of the lower bout, and its half. */
  lowerBout: { y: number; half: number }
  edge: number
}

export function shapeOf(options: { family: string; strings: number; leftHanded: boolean; oppositeBuild: boolean }): Shape {
  const build = BUILDS[options.family as Family] ?? BUILDS.violin
  const whole = build.head + build.neck + build.body + build.endpin
  const scale = MAP.tall / whole
  const hand = options.leftHanded ? -1 : 1
  const inside = options.leftHanded !== options.oppositeBuild ? -1 : 1
  const k = build.lower / 208
  const x = (across: number) => MAP.middle + hand * across * scale
  const y = (down: number) => MAP.top + down * scale
  const nut = build.head
  const edge = build.head + build.neck
  const bridge = edge + build.stop
  const boardEnd = nut + build.board
  const tail = bridge + build.afterlength
  const end = edge + build.body
  const at = (across: number, down: number) => `${x(across).toFixed(1)} ${y(down).toFixed(1)}`

  const nutHalf = 12 * k
  const spread = [8.2 * k, 16.8 * k, 5.5 * k] as const
  const strings = Array.from({ length: options.strings }, (_, i) => {
    const share = options.strings > 1 ? (2 * i) / (options.strings - 1) - 1 : 0
    return `M${at(share * spread[0], nut)} L${at(share * spread[1], bridge)} L${at(share * spread[2] * 2, tail)}`
  })
  const pegs = Array.from({ length: options.strings }, (_, i) => {
    const s = i % 2 === 0 ? -1 : 1
    const down = nut - build.head * (0.16 + (0.5 * i) / Math.max(1, options.strings - 1))
    return { from: [x(s * 9 * k), y(down)] as Point, to: [x(s * 30 * k), y(down)] as Point }
  })
  const onBody = (across: number, along: number) => at(across, edge + along)
  return {
    x,
    outline: bodyOutline(build, onBody),
    head: `M${at(-11 * k, nut)} L${at(-8 * k, build.head * 0.22)} L${at(8 * k, build.head * 0.22)} L${at(11 * k, nut)} Z`,
    scroll: { at: [x(0), y(build.head * 0.12)], r: build.head * 0.105 * scale },
    pegs,
    hasMachines: options.family === 'bass',
    nut: { y: y(nut), half: nutHalf * scale },
    board: `M${at(-nutHalf, nut)} L${at(nutHalf, nut)} L${at(21 * k, boardEnd)} L${at(-21 * k, boardEnd)} Z`,
    neck: `M${at(-nutHalf - 1.5 * k, nut + 6 * k)} L${at(-16 * k, edge)} M${at(nutHalf + 1.5 * k, nut + 6 * k)} L${at(16 * k, edge)}`,
    bridge: { y: y(bridge), half: 20.5 * k * scale },
    post: { at: [MAP.middle + inside * 17 * k * scale, y(bridge + 9 * k)], r: Math.max(3, 3.2 * k * scale) },
    bar: `M${(MAP.middle - inside * 18.5 * k * scale).toFixed(1)} ${y(edge + build.body * 0.2).toFixed(1)} L${(MAP.middle - inside * 15 * k * scale).toFixed(1)} ${y(edge + build.body * 0.84).toFixed(1)}`,
    strings,
    tailpiece: `M${at(-12 * k, tail)} Q${at(0, tail - 6 * k)} ${at(12 * k, tail)} L${at(7.5 * k, end - 14 * k)} L${at(-7.5 * k, end - 14 * k)} Z`,
    tailEnd: [x(0), y(end - 14 * k)],
    endpin: build.endpin ? [x(0), y(end + build.endpin)] : null,
    holes: fHoles(build, onBody).map(({ path, eyes }) => ({ path, eyes: eyes.map(([across, along]): Point => [x(across), y(edge + along)]) })),
    lowerBout: { y: y(edge + build.body * 0.795), half: (build.lower / 2) * scale },
    edge: y(edge),
  }
}
