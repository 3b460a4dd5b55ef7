<script setup lang="ts">
/** A dimension as in a workshop drawing: a line between two ticks, its figure beside it; hollow where it is assumed. */
import { computed } from 'vue'

const props = defineProps<{
  x1: number
  y1: number
  x2: number
  y2: number
  text: string
  assumed?: boolean
  /** On which side of the line the figure stands; along a level line it stands over it. */
  side?: 'start' | 'end'
  /** How far down an upright line's figure stands at least, clear of what is over it. */
  clear?: number
}>()
const level = computed(() => Math.abs(props.y1 - props.y2) < 0.5)
const tick = computed(() => (level.value ? { x: 0, y: 5 } : { x: 5, y: 0 }))
const label = computed(() =>
  level.value
    ? { x: (props.x1 + props.x2) / 2, y: props.y1 - 5, anchor: 'middle' }
    : { x: props.x1 + (props.side === 'start' ? -8 : 8), y: Math.max((props.y1 + props.y2) / 2 + 5, props.clear ?? 0), anchor: props.side === 'start' ? 'end' : 'start' },
)
</script>

<template>
  <g class="dimension" :class="{ assumed }">
    <line :x1="x1" :y1="y1" :x2="x2" :y2="y2" />
    <line :x1="x1 - tick.x" :y1="y1 - tick.y" :x2="x1 + tick.x" :y2="y1 + tick.y" />
    <line :x1="x2 - tick.x" :y1="y2 - tick.y" :x2="x2 + tick.x" :y2="y2 + tick.y" />
    <text :x="label.x" :y="label.y" :text-anchor="label.anchor">{{ text }}</text>
  </g>
</template>

<style scoped>
line {
  stroke: var(--quiet);
  stroke-width: 1;
}
text {
  fill: var(--ink);
  font-size: 15px;
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  stroke-linejoin: round;
}
.assumed text {
  fill: var(--quiet);
  font-weight: 400;
  font-style: italic;
}
.assumed line {
  stroke-dasharray: 3 3;
}
</style>
