/** The bridge seen from the tailpiece: its outline by the family's own shape, its heart. */
import table from '../../../../backend/src/fidicula/tables/data/bridge_shapes.csv?raw'

type Point = [number, number]
type Of = 'crown' | 'waist' | 'foot'
interface ShapeRow {
  family: string
  line: string
  across: number
  of: Of
  height: number
}
/** The rows that the papers are drawn by too. */
const SHAPES: ShapeRow[] = table
  .trim()
  .split('\n')
  .slice(1)
  .map((row) => {
    const [family = '', line = '', across = '', of = '', height = ''] = row.split(',')
    return { family, line, across: Number(across), of: of as Of, height: Number(height) }
  })
const shapeOf = (family: string, line: string) => SHAPES.filter((row) => row.family === (SHAPES.some((one) => one.family === family) ? family : 'violin') && row.line === line)

export interface OutlineOptions {
  family: string
  footWidth: number
  waist: number
  /** Half the width of the crown. */
  crownHalf: number
  /** Height of the wood at an offset: the crown line. */
  crownAt: (offset: number) => number
  /** Height of the belly at an offset; 0 in the middle. */
  bellyAt: (offset: number) => number
  x: (offset: number) => number
  y: (height: number) => number
}

const CROWN_STEPS = 24
/** Below this share of the height the wood follows the belly. */
const NEAR_BELLY = 0.11

/** An SVG path: crown from bass to treble, down the treble side, feet and arch, up the bass side. */
export function bridgeOutline(options: OutlineOptions): string {
  const { family, footWidth, waist, crownHalf, crownAt, bellyAt, x, y } = options
  const shoulder = Math.min(crownAt(crownHalf), crownAt(-crownHalf))
  const half: Record<Of, number> = { crown: crownHalf, waist: waist / 2, foot: footWidth / 2 }
  const crown = Array.from({ length: CROWN_STEPS + 1 }, (_, i): Point => {
    const offset = -crownHalf + (2 * crownHalf * i) / CROWN_STEPS
    return [offset, crownAt(offset)]
  })
  const down = shapeOf(family, 'side')
    .slice(1)
    .map(({ across, of, height }): Point => {
      const offset = across * half[of]
      return [offset, height * shoulder + (height < NEAR_BELLY ? bellyAt(offset) : 0)]
    })
  const up = down.slice(0, -1).reverse().map(([offset, height]): Point => [-offset, height])
  const [first = [0, 0], last = [0, 0]] = [crown[0], crown.at(-1)]
  const draw = ([offset, height]: Point) => `${x(offset).toFixed(2)} ${y(height).toFixed(2)}`
  return `M${crown.map(draw).join(' L')} ${through([last, ...down, ...up, first], draw)} Z`
}

/** Curves through points, each bent as its neighbours say: the curve of Catmull and Rom. The first point stands already. */
function through(points: Point[], draw: (point: Point) => string): string {
  const at = (i: number): Point => points[Math.min(Math.max(i, 0), points.length - 1)] ?? [0, 0]
  return points
    .slice(1)
    .map((to, n) => {
      const [before, from, after] = [at(n - 1), at(n), at(n + 2)]
      const one: Point = [from[0] + (to[0] - before[0]) / 6, from[1] + (to[1] - before[1]) / 6]
      const two: Point = [to[0] - (after[0] - from[0]) / 6, to[1] - (after[1] - from[1]) / 6]
      return `C${draw(one)} ${draw(two)} ${draw(to)}`
    })
    .join(' ')
}

/** Where the heart stands and how large it is, as shares of the height and of half the waist. */
export function heartOf(family: string): { across: number; height: number } {
  return shapeOf(family, 'heart')[0] ?? { across: 0.17, height: 0.66 }
}

/** The opening in the middle, at a height; its own plain drop of wood, point down. */
export function heartPath(x: (offset: number) => number, y: (height: number) => number, at: number, size: number): string {
  const p = (offset: number, height: number) => `${x(offset * size).toFixed(2)} ${y(at + height * size).toFixed(2)}`
  return (
    `M${p(0, 0.42)} C${p(0.25, 0.8)} ${p(0.95, 0.75)} ${p(0.8, 0.15)} C${p(0.7, -0.3)} ${p(0.2, -0.6)} ${p(0, -0.95)} ` +
    `C${p(-0.2, -0.6)} ${p(-0.7, -0.3)} ${p(-0.8, 0.15)} C${p(-0.95, 0.75)} ${p(-0.25, 0.8)} ${p(0, 0.42)} Z`
  )
}

/** A value between known points, flat beyond the outer ones. For the drawing only. */
export function between(points: Point[], at: number): number {
  const first = points[0]
  if (first === undefined) return 0
  if (at <= first[0]) return first[1]
  for (let i = 1; i < points.length; i++) {
    const [x0, y0] = points[i - 1] ?? first
    const [x1, y1] = points[i] ?? first
    if (at <= x1) return y0 + ((y1 - y0) * (at - x0)) / (x1 - x0)
  }
  return points[points.length - 1]?.[1] ?? 0
}
