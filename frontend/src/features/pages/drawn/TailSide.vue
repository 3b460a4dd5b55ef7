<script setup lang="ts">
/** Behind the bridge from the side: the strings' afterlength, the tailpiece, and the room that is left at the saddle. */
import { computed } from 'vue'
import type { DrawnTail } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnTail; width: number; height: number }>()

const LEFT = 60
const TOP = 78
const DOWN = 150
/** From the bridge to the saddle; where nobody read it, about what such a tailpiece takes. [mm] */
const whole = computed(() => props.drawing.behind ?? (props.drawing.after ?? props.drawing.sixth) * 2.9)
const scale = computed(() => (props.width - LEFT - 110) / whole.value)
const x = (behind: number) => LEFT + behind * scale.value
/** The string falls from the bridge to the saddle. */
const y = (behind: number) => TOP + (behind / whole.value) * 74
const fret = computed(() => props.drawing.after_then)
const gap = computed(() => props.drawing.gap_then ?? whole.value * 0.02)
const end = computed(() => Math.max(fret.value + 4, whole.value - gap.value))
const isMoved = computed(() => props.drawing.after !== null && Math.abs(props.drawing.after - fret.value) > 0.04)
const said = computed(() => t('afterlength_a_sixth_would_be', { mm: props.drawing.after === null ? t('not_read') : mm(props.drawing.after, 1), mm2: mm(props.drawing.sixth, 1), saddle: props.drawing.gap === null ? t('gap_at_the_saddle_not') : t('free_at_the_saddle', { mm: mm(props.drawing.gap, 1) }) }))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="said">
    <path :d="`M${LEFT - 44} ${DOWN + 26} Q${x(whole * 0.4)} ${DOWN + 4} ${x(whole) + 26} ${DOWN + 34}`" class="outline" />
    <path :d="`M${LEFT - 9} ${DOWN + 18} L${LEFT - 3} ${TOP} h6 L${LEFT + 9} ${DOWN + 16} Z`" class="wood" />
    <path :d="`M${LEFT - 50} ${TOP + 12} L${LEFT} ${TOP} L${x(fret)} ${y(fret)}`" class="outline" />
    <path :d="`M${x(fret)} ${y(fret) - 7} L${x(end)} ${y(end) - 4} v9 L${x(fret)} ${y(fret) + 10} Z`" :class="drawing.after === null ? 'hidden' : 'wood'" />
    <path v-if="isMoved && drawing.after !== null" :d="`M${x(drawing.after)} ${y(drawing.after) - 7} v18`" class="before" />
    <path :d="`M${x(end)} ${y(end) + 2} Q${x(whole) + 8} ${y(whole) - 4} ${x(whole) + 18} ${DOWN + 24}`" class="thin" />
    <path :d="`M${x(whole)} ${DOWN + 32} V${y(whole) + 4} h14 V${DOWN + 34} Z`" class="wood" />
    <circle :cx="x(whole) + 20" :cy="DOWN + 34" r="7" class="paper" />
    <text :x="x(whole) + 34" :y="y(whole) + 12" class="small">{{ t('saddle') }}</text>

    <path :d="`M${LEFT} ${TOP - 30} H${x(fret)} M${LEFT} ${TOP - 36} v12 M${x(fret)} ${TOP - 36} v12`" class="thin" />
    <text :x="(LEFT + x(fret)) / 2" :y="TOP - 38" class="middle" :class="drawing.after === null ? 'quiet' : 'big'">{{ drawing.after === null ? t('not_read') : mm(fret, 1) }}</text>
    <path :d="`M${x(end)} ${TOP - 4} V${y(end) - 8} M${x(whole)} ${TOP - 4} V${y(whole)} M${x(end)} ${TOP + 2} H${x(whole)}`" class="thin" />
    <text :x="(x(end) + x(whole)) / 2" :y="TOP - 10" class="middle" :class="drawing.gap === null ? 'quiet small' : 'bold'">{{ drawing.gap_then === null ? t('gap_not_read') : mm(drawing.gap_then, 1) }}</text>

    <g>
      <line :x1="LEFT" :x2="x(whole)" :y1="height - 40" :y2="height - 40" class="thin" />
      <line :x1="x(drawing.sixth)" :x2="x(drawing.sixth)" :y1="height - 48" :y2="height - 32" class="wanted" />
      <text :x="x(drawing.sixth)" :y="height - 14" class="middle small">{{ t('a_sixth', { mm: mm(drawing.sixth, 1) }) }}</text>
      <template v-if="drawing.farthest !== null">
        <rect :x="x(drawing.farthest)" :y="height - 50" width="5" height="20" class="mark" />
        <text :x="x(drawing.farthest) + 10" :y="height - 50" class="small">{{ t('the_saddle_allows', { mm: mm(drawing.farthest, 1) }) }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
