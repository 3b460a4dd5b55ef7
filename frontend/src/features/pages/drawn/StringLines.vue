<script setup lang="ts">
/** Each string as a line, as thick as it is to its neighbours, with what it pulls now and with what is tried. */
import { computed } from 'vue'
import type { DrawnStrings } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnStrings; width: number; height: number }>()

const LEFT = 40
const RIGHT = 300
/** Strings are drawn so many times thicker than they are, against their length. */
const THICKER = 6
const apart = computed(() => Math.min(44, (props.height - 40) / props.drawing.strings.length))
const strings = computed(() =>
  props.drawing.strings.map((s, i) => ({
    ...s,
    y: 42 + i * apart.value,
    thick: s.diameter * THICKER,
    isTried: s.then !== null && s.tension !== null && Math.abs(s.then - s.tension) > 0.05,
    by: (s.then ?? 0) - (s.tension ?? 0),
  })),
)
const most = computed(() => Math.max(1, ...props.drawing.strings.map((s) => Math.max(s.tension ?? 0, s.then ?? 0))))
const long = (force: number) => (force / most.value) * 110
const tall = computed(() => 50 + strings.value.length * apart.value)
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${tall}`" role="img" :aria-label="strings.map((s) => t('mm', { name: s.name, mm: mm(s.diameter), n: s.tension === null ? t('no_figures') : `${mm(s.tension, 0)} N` })).join('; ')">
    <text x="150" y="18" class="small quiet">{{ t('mm_sounding_thickness', { mm: mm(drawing.length, 0), t_h_i_c_k_e_r: THICKER }) }}</text>
    <text :x="width - RIGHT + 62" y="18" class="end small quiet">{{ t('mm_2') }}</text>
    <text :x="width - RIGHT + 80" y="18" class="small quiet">{{ t('pulls_n') }}</text>
    <line :x1="LEFT" :x2="LEFT" y1="30" :y2="tall - 8" class="outline" />
    <line :x1="width - RIGHT" :x2="width - RIGHT" y1="30" :y2="tall - 8" class="outline" />
    <g v-for="s in strings" :key="s.name">
      <text :x="LEFT - 12" :y="s.y + 6" class="end big">{{ s.name }}</text>
      <line :x1="LEFT" :x2="width - RIGHT" :y1="s.y" :y2="s.y" class="string" :stroke-width="s.thick" />
      <text :x="width - RIGHT + 62" :y="s.y + 6" class="end">{{ mm(s.diameter) }}</text>
      <template v-if="s.tension !== null">
        <rect :x="width - RIGHT + 80" :y="s.y - 8" :width="long(s.tension)" height="7" class="now" />
        <rect v-if="s.isTried && s.then !== null" :x="width - RIGHT + 80" :y="s.y + 1" :width="long(s.then)" height="7" class="then" />
        <text :x="width - RIGHT + 86 + long(Math.max(s.tension, s.then ?? 0))" :y="s.y + 6" class="bold">{{ mm(s.isTried && s.then !== null ? s.then : s.tension, 0) }}{{ ' ' }}<tspan v-if="s.isTried" class="small">{{ s.by > 0 ? '+' : '' }}{{ mm(s.by, 0) }}</tspan></text>
      </template>
      <text v-else :x="width - RIGHT + 80" :y="s.y + 6" class="small quiet">{{ t('no_figures') }}</text>
    </g>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
<style scoped>
.string {
  stroke: var(--ink);
}
.now {
  fill: var(--ink);
}
.then {
  fill: var(--action);
}
</style>
