<script setup lang="ts">
/** The nut from the front, true to scale: each string in its slot, the floor it is filed to, the wood between hatched. */
import { computed, useId } from 'vue'
import type { DrawnNut } from '@/api'
import { down, mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnNut; width: number; height: number; leftHanded: boolean }>()
const id = useId()

const EDGE = 30
const BASE = 168
/** Off less than this is nothing to file. [mm] */
const NOTHING = 0.02

const scale = computed(() => (props.width - 2 * EDGE) / props.drawing.width)
const hand = computed(() => (props.leftHanded ? -1 : 1))
const x = (offset: number) => props.width / 2 + hand.value * offset * scale.value
/** How far the board's top falls off beside its middle. [mm] */
function drop(offset: number): number {
  const r = props.drawing.radius
  return r - Math.sqrt(Math.max(0, r * r - offset * offset))
}
const y = (offset: number, over: number) => BASE - (over - drop(offset)) * scale.value
const half = computed(() => props.drawing.width / 2)
function arc(over: (offset: number) => number, from = -half.value, to = half.value): string {
  return Array.from({ length: 33 }, (_, i) => from + ((to - from) * i) / 32).map((at) => `${x(at).toFixed(1)} ${y(at, over(at)).toFixed(1)}`).join(' L')
}
const board = computed(() => `M${arc(() => 0)}`)
const strings = computed(() =>
  props.drawing.strings.map((s) => {
    const floor = s.now ?? s.wanted ?? 0
    return { ...s, floor, by: s.by ?? 0, at: x(s.offset), bottom: y(s.offset, floor), r: (s.diameter / 2) * scale.value }
  }),
)
/** The nut's top stands half a string over each slot's floor. */
function top(offset: number): number {
  const places = strings.value.map((s) => ({ offset: s.offset, over: s.floor + s.diameter / 2 }))
  const first = places[0]
  const last = places.at(-1)
  if (!first || !last) return 1
  if (offset <= first.offset) return first.over
  if (offset >= last.offset) return last.over
  const next = places.findIndex((place) => place.offset >= offset)
  const [a, b] = [places[next - 1] ?? first, places[next] ?? last]
  return a.over + ((b.over - a.over) * (offset - a.offset)) / (b.offset - a.offset)
}
const body = computed(() => `M${x(-half.value)} ${y(-half.value, 0)} L${arc(top)} L${x(half.value)} ${y(half.value, 0)} L${arc(() => 0, half.value, -half.value)} Z`)
function slot(s: (typeof strings.value)[number], floor: number): string {
  const w = (s.wide / 2) * scale.value
  const r = Math.min(w, s.r * 1.1)
  const low = y(s.offset, floor)
  const high = y(s.offset, top(s.offset)) - 1
  return `M${s.at - w} ${high} V${low - r} Q${s.at - w} ${low} ${s.at} ${low} Q${s.at + w} ${low} ${s.at + w} ${low - r} V${high} Z`
}
const spread = computed(() => {
  const [first, last] = [strings.value[0], strings.value.at(-1)]
  return first && last ? { from: first.at, to: last.at, says: mm(last.offset - first.offset, 1), margins: [first.offset + half.value, half.value - last.offset] as const } : null
})
/** In band nothing is to be filed: what it would take to the aim is shown small, and named so. */
const word = computed(() => (props.drawing.is_due ? t('file_by') : t('to_the_aim')))
const said = computed(() => strings.value.map((s) => `${s.name} ${s.now === null ? t('not_read') : mm(s.now)}${s.by > NOTHING ? `, ${word.value} ${down(s.by, 2)}` : ''}`).join('; '))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="t('the_nut_from_the_front', { said })">
    <defs>
      <pattern :id="id" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)"><line x1="0" y1="0" x2="0" y2="6" class="hatch" /></pattern>
    </defs>
    <path :d="body" class="wood" />
    <path :d="`${board} V${BASE + 44} H${x(-half)} Z`" class="paper" />
    <text :x="width / 2" :y="BASE + 30" class="middle small quiet">{{ t('board_wide', { mm: mm(drawing.width, 1) }) }}</text>
    <g v-for="s in strings" :key="s.name">
      <path v-if="s.by > NOTHING && s.wanted !== null" :d="slot(s, s.wanted)" :fill="`url(#${id})`" stroke="none" />
      <path :d="slot(s, s.floor)" class="paper" />
      <circle :cx="s.at" :cy="s.bottom - s.r" :r="Math.max(2.5, s.r)" :class="s.now === null || s.assumed ? 'hidden' : 'outline'" />
      <line v-if="s.wanted !== null" :x1="s.at - 16" :x2="s.at + 16" :y1="y(s.offset, s.wanted)" :y2="y(s.offset, s.wanted)" class="wanted" />
      <line :x1="s.at" :x2="s.at" y1="62" :y2="s.bottom - 2 * s.r - 12" class="leader" />
      <text v-if="s.by > NOTHING" :x="s.at" y="34" :class="['middle', drawing.is_due ? 'big' : 'quiet']">{{ down(s.by, 2) }}</text>
      <text v-else-if="s.by < -NOTHING" :x="s.at" y="34" class="middle bold below">▼ {{ mm(-s.by) }}</text>
      <text v-else :x="s.at" y="34" class="middle quiet">–</text>
      <text :x="s.at" y="56" class="middle small">{{ s.by > NOTHING ? word : s.by < -NOTHING ? t('too_low') : '' }}</text>
      <text :x="s.at" :y="BASE + 62" class="middle bold">{{ s.name }}</text>
      <text :x="s.at" :y="BASE + 84" class="middle small">{{ s.now === null ? t('not_read') : mm(s.now) }}{{ ' ' }}<tspan v-if="s.wanted !== null" class="quiet">{{ t('to', { mm: mm(s.wanted) }) }}</tspan></text>
    </g>
    <g v-if="spread" class="small">
      <line :x1="spread.from" :x2="spread.to" y1="84" y2="84" class="thin" />
      <text :x="width / 2" y="80" class="middle small">{{ spread.says }}</text>
      <text :x="(x(-half) + spread.from) / 2" y="80" class="middle small">{{ mm(spread.margins[0], 1) }}</text>
      <text :x="(x(half) + spread.to) / 2" y="80" class="middle small">{{ mm(spread.margins[1], 1) }}</text>
      <line :x1="x(-half)" :x2="spread.from" y1="84" y2="84" class="thin" />
      <line :x1="spread.to" :x2="x(half)" y1="84" y2="84" class="thin" />
      <path :d="[x(-half), spread.from, spread.to, x(half)].map((at) => `M${at - 4} 88 l8 -8`).join(' ')" class="thin" />
    </g>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
