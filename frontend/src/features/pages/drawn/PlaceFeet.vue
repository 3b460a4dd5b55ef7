<script setup lang="ts">
/** The bridge's feet from above between the f-holes: where they stand, the nicks, and where each school has their middle. */
import { computed } from 'vue'
import type { DrawnPlace } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnPlace; width: number; height: number; leftHanded: boolean }>()

/** Seen from above with the tailpiece below; across the page lies the bass on the left, or on the right for a left hand. */
const MIDDLE = 172
const LEVEL = 112
const across = computed(() => 216 / props.drawing.foot_width)
/** What lies along the instrument is drawn larger, so that a millimetre is seen. */
const along = computed(() => {
  const farthest = Math.max(4, props.drawing.foot_thickness, ...props.drawing.schools.map((one) => Math.abs(one.shift)), Math.abs(props.drawing.shift))
  return Math.min(14, 72 / farthest)
})
const side = computed(() => (props.leftHanded ? -1 : 1))
const x = (toTreble: number) => MIDDLE + side.value * toTreble * across.value
const y = (back: number) => LEVEL + back * along.value
const half = computed(() => props.drawing.foot_width / 2)
const foot = computed(() => half.value * 0.42)
const thick = computed(() => props.drawing.foot_thickness)
/** A turned bridge: its treble foot lies farther back by the whole turn, half of it at each side of the middle. */
function feet(shift: number): { key: string; d: string }[] {
  return [-1, 1].map((to) => {
    const middle = shift + (to * props.drawing.turn) / 2
    const inner = to * (half.value - foot.value)
    return { key: `${to}`, d: `M${x(to * half.value)} ${y(middle - thick.value / 2)} H${x(inner)} V${y(middle + thick.value / 2)} H${x(to * half.value)} Z` }
  })
}
const isMoved = computed(() => Math.abs(props.drawing.shift) > 0.04)
const gapOf = (i: number) => props.drawing.gaps[i] ?? null
const nickOf = (i: number) => props.drawing.nicks[i] ?? null
const holeAt = (to: -1 | 1) => to * (half.value + (gapOf(to < 0 ? 0 : 1) ?? 3.5))
/** Labels beside each other's lines are pushed apart, in the order in which they lie. */
const places = computed(() => {
  const sorted = [...props.drawing.schools].sort((one, other) => one.shift - other.shift)
  let last = -Infinity
  return sorted.map((one) => {
    last = Math.max(y(one.shift) + 5, last + 19)
    return { ...one, at: y(one.shift), label: one.label, text: last }
  })
})
const said = computed(() => props.drawing.schools.map((one) => t('school_from_where_it_stands', { school: one.label, mm: mm(one.shift, 1) })).join('; ') || t('nothing_read_of_its_place'))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="said">
    <path v-for="to in [-1, 1] as const" :key="to" :d="`M${x(holeAt(to))} ${LEVEL - 74} Q${x(holeAt(to)) + to * side * 20} ${y(0)} ${x(holeAt(to))} ${LEVEL + 84}`" class="outline" />
    <path v-for="one in feet(0)" :key="one.key" :d="one.d" :class="isMoved ? 'hidden' : 'wood'" />
    <template v-if="isMoved"><path v-for="one in feet(drawing.shift)" :key="one.key" :d="one.d" class="wood" /></template>
    <template v-for="(to, i) in [-1, 1] as const" :key="to">
      <path v-if="nickOf(i) !== null" :d="`M${x(holeAt(to))} ${y(nickOf(i)!)} l${-to * side * 12} -6 v12 Z`" class="mark" />
      <text v-if="gapOf(i) !== null" :x="(x(to * half) + x(holeAt(to))) / 2" :y="LEVEL - 84" class="middle small">{{ mm(gapOf(i)!, 1) }}</text>
      <text :x="x(to * half * 0.78)" :y="LEVEL + 104" class="middle small quiet">{{ i === 0 ? t('bass') : t('treble') }}</text>
    </template>
    <path v-if="nickOf(0) !== null && nickOf(1) !== null" :d="`M${x(holeAt(-1))} ${y(nickOf(0)!)} L${x(holeAt(1))} ${y(nickOf(1)!)}`" class="extension" />
    <g v-for="one in places" :key="one.label">
      <path :d="`M${MIDDLE + 138} ${one.at} H${MIDDLE + 158} L${MIDDLE + 168} ${one.text - 5}`" class="thin" />
      <path :d="`M${MIDDLE - 50} ${one.at} H${MIDDLE + 50}`" :class="one.chosen ? 'wanted' : 'thin'" />
      <text :x="MIDDLE + 172" :y="one.text" class="small" :class="{ bold: one.chosen }">{{ t('school_place', { school: one.label, mm: (one.shift > 0 ? '+' : '') + mm(one.shift, 1) }) }}</text>
    </g>
    <text :x="width - 6" :y="height - 6" class="end small quiet">{{ t('seen_from_above_tailpiece_below') }}</text>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
