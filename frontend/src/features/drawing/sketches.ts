/** Where each measure is taken: a view of the instrument, and the two points between which it lies. */

export type ViewName = 'side' | 'end' | 'foot' | 'across' | 'plan'
type Point = readonly [number, number]

export interface Sketch {
  view: ViewName
  from: Point
  to: Point
}

const between = (view: ViewName, from: Point, to: Point): Sketch => ({ view, from, to })

/* The side's own points, so that a line that is moved moves with what is measured from it. */
const NUT: Point = [24, 66]
const BOARD_END: Point = [176, 92]
const EDGE_X = 122
const BRIDGE_X = 216
const CROWN: Point = [BRIDGE_X, 58]
const BELLY_Y = 124
const BOARD_LINE_Y = 99
const TAIL: Point = [258, 92]
const SADDLE: Point = [286, 128]

function alongBoard(share: number): Point {
  return [NUT[0] + (BOARD_END[0] - NUT[0]) * share, NUT[1] + (BOARD_END[1] - NUT[1]) * share]
}
function scoop(share: number): Sketch {
  const [x, y] = alongBoard(share)
  return between('side', [x, y - 1], [x, y + 9])
}

/** By measure, one for each of its places; the last one serves those beyond it. */
export const SKETCHES: Record<string, Sketch[]> = {
  neck_length: [between('side', [NUT[0], 34], [EDGE_X, 34])],
  stop_length: [BRIDGE_X, BRIDGE_X + 7, BRIDGE_X + 2].map((x) => between('side', [EDGE_X, 152], [x, 152])),
  string_length: [between('side', [NUT[0], 42], [BRIDGE_X, 36])],
  projection: [between('side', [BRIDGE_X + 14, BELLY_Y], [BRIDGE_X + 14, BOARD_LINE_Y])],
  edge_projection: [between('side', [BRIDGE_X + 14, BELLY_Y], [BRIDGE_X + 14, BOARD_LINE_Y])],
  fingerboard_length: [between('side', [NUT[0], NUT[1] + 16], [BOARD_END[0], BOARD_END[1] + 16])],
  fingerboard_thickness: [between('side', [BOARD_END[0] + 7, BOARD_END[1]], [BOARD_END[0] + 7, BOARD_END[1] + 10])],
  relief: [0.25, 0.5, 0.75, 0.25, 0.5, 0.75].map(scoop),
  neck_thickness: [between('side', [40, 70], [43, 88]), between('side', [106, 82], [112, 134])],
  nut_over_board: [between('side', [18, 72], [18, 64])],
  nut_passes: [between('side', [NUT[0] + 9, NUT[1] + 2], [NUT[0] + 9, NUT[1] - 6])],
  nut_stops: [between('side', [NUT[0] + 9, NUT[1] + 2], [NUT[0] + 9, NUT[1] - 6])],
  facet_width: [between('across', [70, 98], [112, 56])],
  facet_string: [between('across', [112, 50], [92, 70])],
  nut_height: [between('side', [NUT[0] + 9, NUT[1] + 2], [NUT[0] + 9, NUT[1] - 6])],
  end_height: [between('side', BOARD_END, [BOARD_END[0], 60])],
  afterlength: [between('side', [CROWN[0] + 5, CROWN[1] - 12], [TAIL[0] + 5, TAIL[1] - 12])],
  saddle_gap: [between('side', [272, 108], [SADDLE[0], 121])],
  break_angle: [between('side', [CROWN[0] - 26, CROWN[1]], [CROWN[0] + 22, CROWN[1] + 18])],
  board_angle: [between('side', [EDGE_X, 92], [BOARD_END[0], BOARD_END[1] + 10])],
  board_at_edge: [between('side', [EDGE_X, 134], [EDGE_X, 83])],
  saddle_height: [between('side', [286, 136], [286, 127])],
  arch_height: [between('side', [BRIDGE_X, 136], [BRIDGE_X, BELLY_Y])],
  waist_width: [between('plan', [BRIDGE_X, 146], [BRIDGE_X, 34])],
  nick_stop: [146, 34].map((y) => between('plan', [150, y], [BRIDGE_X, y])),
  foot_gap: [between('end', [70, 158], [88, 158]), between('end', [212, 158], [230, 158])],
  old_footprint: [between('foot', [164, 158], [178, 158])],
  bridge_lean: [between('foot', [164, 144], [170, 34])],
  bridge_warp: [between('foot', [156, 90], [166, 90])],
  bridge_turn: [between('plan', [BRIDGE_X - 4, 122], [BRIDGE_X + 6, 58])],
  neck_to_nick: [between('plan', [BRIDGE_X, 120], [BRIDGE_X, 146]), between('plan', [BRIDGE_X, 60], [BRIDGE_X, 34])],
  fingerboard_width: [between('plan', [24, 76], [24, 104]), between('plan', [180, 62], [180, 118])],
  edge_hollow: [between('plan', [102, 115], [102, 107]), between('plan', [102, 65], [102, 73])],
  wheel_room: [between('end', [100, 132], [100, 146]), between('end', [200, 132], [200, 146])],
  nut_spread: [between('plan', [34, 79], [34, 101])],
  nut_margin: [between('plan', [34, 104], [34, 101]), between('plan', [34, 76], [34, 79])],
  nut_slot_depth: [between('side', [20, 70], [20, 64])],
  nut_slot_width: [101, 94, 87, 80].map((y) => between('plan', [34, y + 2], [34, y - 2])),
  button_standout: [between('side', [292, 138], [300, 138])],
  string_diameter: [101, 94, 87, 80].map((y) => between('plan', [120, y - 2], [120, y + 2])),
  end_margin: [between('plan', [180, 118], [180, 112]), between('plan', [180, 62], [180, 68])],
  string_mark_nut: [101, 97, 83, 79].map((y) => between('plan', [34, 104], [34, y])),
  string_centres_nut: [[101, 97], [97, 83], [83, 79]].map(([a = 0, b = 0]) => between('plan', [34, a], [34, b])),
  string_gap_nut: [[100, 94], [93, 87], [86, 80]].map(([a = 0, b = 0]) => between('plan', [34, a], [34, b])),
  string_mark_bridge: [122, 142, 162, 182].map((x) => between('end', [106, 26], [x, 26])),
  string_centres_bridge: [[122, 142], [142, 162], [162, 182]].map(([a = 0, b = 0]) => between('end', [a, 26], [b, 26])),
  string_gap_bridge: [[124, 140], [144, 160], [164, 180]].map(([a = 0, b = 0]) => between('end', [a, 26], [b, 26])),
  fingerboard_radius: [between('across', [150, 152], [206, 62])],
  fingerboard_radius_middle: [between('across', [150, 152], [206, 62])],
  fingerboard_radius_nut: [between('across', [150, 152], [206, 62])],
  board_tilt: [between('across', [70, 88], [230, 92])],
  board_chord: [between('across', [70, 92], [230, 92])],
  board_rise: [between('across', [150, 92], [150, 44])],
  slot_depth: [between('end', [122, 43], [122, 51])],
  bridge_spread: [between('end', [104, 26], [196, 26])],
  bridge_foot_width: [between('end', [88, 158], [212, 158])],
  bridge_waist: [between('end', [118, 92], [182, 92])],
  bridge_heart: [between('end', [136, 74], [164, 74])],
  bridge_kidney: [between('end', [102, 88], [116, 88]), between('end', [184, 88], [198, 88])],
  bridge_leg: [between('end', [122, 144], [178, 144])],
  post_room: [between('end', [194, 152], [194, 178])],
  bar_inset: [between('end', [88, 166], [98, 166])],
  post_inset: [between('end', [202, 166], [212, 166])],
  bridge_foot_thickness: [between('foot', [124, 138], [164, 138])],
  bridge_thickness: [116, 89, 62].map((y) => between('foot', [124 + (144 - y) * 0.127, y], [164 - (144 - y) * 0.073, y])),
  top_thickness_post: [between('foot', [206, 154], [206, 164])],
  bridge_top_thickness: [between('foot', [138, 26], [156, 26])],
  post_setback: [between('foot', [164, 148], [178, 148]), between('foot', [164, 168], [178, 168])],
}

export function sketchOf(measure: string, position: number | null): Sketch | null {
  const found = SKETCHES[measure]
  return found?.[Math.min(position ?? 0, found.length - 1)] ?? null
}
