<script setup lang="ts">
/** One measure over the visits: a line for each string with its name at the end, the wanted band behind a single one. */
import { computed } from 'vue'
import type { HistoryChart } from '@/api'
import { valueScale, type TimeScale } from './scale'
import { t } from '@/words/history'

const props = defineProps<{ chart: HistoryChart; time: TimeScale; width: number; height: number; chosen: string }>()
const emit = defineEmits<{ choose: [visitId: string] }>()
const LEFT = 46
const RIGHT = 40
const inner = computed(() => Math.max(props.width - LEFT - RIGHT, 60))
/** Bands of several strings would lie over each other: one alone is drawn. */
const band = computed(() => (props.chart.lines.length === 1 ? props.chart.lines[0] : undefined))
const scale = computed(() =>
  valueScale([
    ...props.chart.lines.flatMap((line) => line.points.map((point) => point.value)),
    ...(band.value?.low != null && band.value.high != null ? [band.value.low, band.value.high] : []),
  ]),
)
const x = (visitId: string) => LEFT + props.time.x(visitId) * inner.value
const y = (value: number) => props.height - 4 - ((value - scale.value.low) / (scale.value.high - scale.value.low)) * (props.height - 8)
const path = (points: HistoryChart['lines'][number]['points']) => points.map((point, i) => `${i ? 'L' : 'M'}${x(point.visit_id).toFixed(1)} ${y(point.value).toFixed(1)}`).join('')
const told = (value: number) => value.toFixed(props.chart.places)
/** Names at the end of lines that nearly meet stand one under the other. */
const NAME = 13
const ends = computed(() => {
  const found = props.chart.lines
    .map((line) => ({ name: line.name, value: line.points.at(-1)?.value ?? 0, y: y(line.points.at(-1)?.value ?? 0), x: x(line.points.at(-1)?.visit_id ?? '') }))
    .sort((one, other) => one.y - other.y)
  for (let i = 1; i < found.length; i++) {
    const [before, here] = [found[i - 1], found[i]]
    if (before && here && here.y < before.y + NAME) here.y = before.y + NAME
  }
  const over = (found.at(-1)?.y ?? 0) - (props.height - 3)
  return over > 0 ? found.map((one) => ({ ...one, y: one.y - over })) : found
})
const summary = computed(() =>
  props.chart.lines.map((line) => `${line.name} ${line.points.map((point) => told(point.value)).join(', ')}`.trim()).join('; '),
)
</script>

<template>
  <svg :width="width" :height="height" role="img" :aria-label="t('text', { label: chart.label, unit: chart.unit, values: summary })">
    <rect v-if="band?.low != null && band.high != null" class="band" :x="LEFT" :width="inner" :y="y(band.high)" :height="Math.max(y(band.low) - y(band.high), 1)" />
    <line v-for="one in time.visits" :key="one.id" class="visit" :class="{ chosen: one.id === chosen }" :x1="x(one.id)" :x2="x(one.id)" y1="0" :y2="height" />
    <path v-for="line in chart.lines" :key="line.name" class="line" :d="path(line.points)" />
    <template v-for="line in chart.lines" :key="line.name">
      <circle v-for="point in line.points" :key="point.visit_id" class="dot" :class="{ chosen: point.visit_id === chosen }" :cx="x(point.visit_id)" :cy="y(point.value)" r="3.5" @click="emit('choose', point.visit_id)"><title>{{ `${line.name} ${told(point.value)} ${chart.unit}` }}</title></circle>
    </template>
    <text class="scale" :x="LEFT - 6" :y="y(scale.high) + 10">{{ told(scale.high) }}</text>
    <text class="scale" :x="LEFT - 6" :y="y(scale.low)">{{ told(scale.low) }}</text>
    <text v-for="end in ends" :key="end.name" class="end" :x="end.x + 7" :y="end.y + 4">{{ end.name || told(end.value) }}</text>
  </svg>
</template>

<style scoped>
svg {
  display: block;
}
.band {
  fill: var(--note);
}
.visit {
  stroke: var(--hairline);
}
.visit.chosen {
  stroke: var(--ink);
  stroke-width: 1.5;
}
.line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.6;
}
.dot {
  fill: var(--ink);
  cursor: pointer;
}
.dot.chosen {
  r: 5px;
}
text {
  font-size: 12px;
  fill: var(--ink);
}
.scale {
  text-anchor: end;
  fill: var(--quiet);
  font-size: 11px;
}
.end {
  font-weight: 700;
}
</style>
