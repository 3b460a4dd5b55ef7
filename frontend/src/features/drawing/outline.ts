/** The bridge's outline seen from the tailpiece, drawn from foot width, waist and heights. */

export interface OutlineOptions {
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

type Point = [number, number]

const CROWN_STEPS = 24

/** An SVG path: crown from bass to treble, down the treble side, feet and arch, up the bass side. */
export function bridgeOutline(options: OutlineOptions): string {
  const { footWidth, waist, crownHalf, crownAt, bellyAt, x, y } = options
  const half = footWidth / 2
  const shoulder = Math.min(crownAt(crownHalf), crownAt(-crownHalf))
  const point = ([offset, height]: Point) => `${x(offset).toFixed(2)} ${y(height).toFixed(2)}`
  const curve = (a: Point, b: Point, c: Point) => `C${point(a)} ${point(b)} ${point(c)}`

  const crown = Array.from({ length: CROWN_STEPS + 1 }, (_, i) => {
    const offset = -crownHalf + (2 * crownHalf * i) / CROWN_STEPS
    return point([offset, crownAt(offset)])
  })

  // Down one side, as pairs of offset (outward) and height; the other side goes the same way back.
  const tip: Point = [crownHalf * 1.04, shoulder * 0.68]
  const under: Point = [crownHalf * 0.84, shoulder * 0.585]
  const waistPoint: Point = [waist / 2, shoulder * 0.53]
  const hip: Point = [half * 0.8, shoulder * 0.42]
  const ankle: Point = [half * 0.8, shoulder * 0.14]
  const toe: Point = [half, bellyAt(half) + shoulder * 0.035]
  const sole: Point = [half, bellyAt(half)]
  const heel: Point = [half * 0.46, bellyAt(half * 0.46)]
  const instep: Point = [half * 0.48, shoulder * 0.1]
  const archTop: Point = [0, shoulder * 0.25]
  const end: Point = [crownHalf, crownAt(crownHalf)]
  const endBass: Point = [-crownHalf, crownAt(-crownHalf)]
  const m = ([offset, height]: Point): Point => [-offset, height]

  return [
    `M${crown.join(' L')}`,
    curve([end[0] + half * 0.02, end[1] - shoulder * 0.1], [tip[0] + half * 0.04, tip[1] + shoulder * 0.05], tip),
    curve([tip[0] - half * 0.03, tip[1] - shoulder * 0.06], [under[0] + half * 0.1, under[1] - shoulder * 0.01], under),
    curve([under[0] - half * 0.2, under[1] + shoulder * 0.02], [waistPoint[0], waistPoint[1] + shoulder * 0.05], waistPoint),
    curve([waistPoint[0], waistPoint[1] - shoulder * 0.06], [hip[0] - half * 0.2, hip[1] + shoulder * 0.02], hip),
    curve([hip[0] + half * 0.12, hip[1] - shoulder * 0.03], [ankle[0] - half * 0.02, ankle[1] + shoulder * 0.08], ankle),
    curve([ankle[0] + half * 0.02, ankle[1] - shoulder * 0.06], [toe[0], toe[1] + shoulder * 0.02], toe),
    `L${point(sole)} L${point(heel)}`,
    curve([heel[0] + half * 0.02, heel[1] + shoulder * 0.05], [instep[0], instep[1] - shoulder * 0.03], instep),
    curve([instep[0] - half * 0.03, archTop[1] - shoulder * 0.02], [half * 0.2, archTop[1]], archTop),
    curve(m([half * 0.2, archTop[1]]), m([instep[0] - half * 0.03, archTop[1] - shoulder * 0.02]), m(instep)),
    curve(m([instep[0], instep[1] - shoulder * 0.03]), m([heel[0] + half * 0.02, heel[1] + shoulder * 0.05]), m(heel)),
    `L${point(m(sole))} L${point(m(toe))}`,
    curve(m([toe[0], toe[1] + shoulder * 0.02]), m([ankle[0] + half * 0.02, ankle[1] - shoulder * 0.06]), m(ankle)),
    curve(m([ankle[0] - half * 0.02, ankle[1] + shoulder * 0.08]), m([hip[0] + half * 0.12, hip[1] - shoulder * 0.03]), m(hip)),
    curve(m([hip[0] - half * 0.2, hip[1] + shoulder * 0.02]), m([waistPoint[0], waistPoint[1] - shoulder * 0.06]), m(waistPoint)),
    curve(m([waistPoint[0], waistPoint[1] + shoulder * 0.05]), m([under[0] - half * 0.2, under[1] + shoulder * 0.02]), m(under)),
    curve(m([under[0] + half * 0.1, under[1] - shoulder * 0.01]), m([tip[0] - half * 0.03, tip[1] - shoulder * 0.06]), m(tip)),
    curve(m([tip[0] + half * 0.04, tip[1] + shoulder * 0.05]), [endBass[0] - half * 0.02, endBass[1] - shoulder * 0.1], endBass),
    'Z',
  ].join(' ')
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
