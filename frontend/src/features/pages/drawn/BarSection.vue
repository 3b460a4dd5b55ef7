<script setup lang="ts">
/** The section at the bridge from the tailpiece: bar and post under the feet, as they are and under the blank that is tried. */
import { computed } from 'vue'
import type { DrawnBar } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnBar; width: number; height: number; leftHanded: boolean }>()
const emit = defineEmits<{ blank: [width: number] }>()

const BELLY = 118
const LEG = 74
const AXIS = 226

const foot = computed(() => props.drawing.foot ?? props.drawing.foot_then)
const scale = computed(() => Math.min(7, (props.width * 0.66) / Math.max(foot.value, props.drawing.foot_then)))
/** Which way the bar lies from the middle. */
const barHand = computed(() => (props.leftHanded !== props.drawing.post_on_bass ? 1 : -1))
const x = (across: number) => props.width / 2 + across * scale.value
const belly = (across: number) => BELLY + 0.00055 * (across * scale.value) ** 2
const half = computed(() => props.drawing.foot_then / 2)
const wide = computed(() => props.drawing.post * 0.9)
/** The bar's outer face, from the middle; it stays where it is, whatever stands over it. */
const barAt = computed(() => barHand.value * (foot.value / 2 - (props.drawing.inset ?? props.drawing.inset_then)))
const arch = computed(() => {
  const reach = half.value * 1.45
  return Array.from({ length: 25 }, (_, i) => -reach + (2 * reach * i) / 24).map((at, i) => `${i ? 'L' : 'M'}${x(at).toFixed(1)} ${belly(at).toFixed(1)}`).join(' ')
})
function leg(side: 1 | -1, outer: number): string {
  const out = side * outer
  const inn = side * outer * 0.55
  return `M${x(out)} ${belly(out)} L${x(out * 0.8)} ${BELLY - LEG} L${x(inn * 0.86)} ${BELLY - LEG} L${x(inn)} ${belly(inn)} Z`
}
const post = computed(() => (props.drawing.post_across === null ? null : -barHand.value * Math.abs(props.drawing.post_across)))
/** Blanks of the shelf on their own axis. */
const blanks = computed(() => {
  const all = [...new Set([...props.drawing.blanks, foot.value])].sort((a, b) => a - b)
  const [low = 0, high = 1] = [all[0], all.at(-1)]
  const place = (value: number) => 70 + ((value - low) / Math.max(1e-6, high - low)) * (props.width - 140)
  return props.drawing.blanks.map((value) => ({ value, at: place(value), isTried: Math.abs(value - props.drawing.foot_then) < 0.051 }))
})
const hands = computed(() => (props.leftHanded ? ['treble', 'bass'] : ['bass', 'treble']))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="group" :aria-label="t('section_at_the_bridge_from', { mm: mm(drawing.inset_then, 1), mm2: mm(drawing.foot_then, 1) })">
    <path v-for="side in [1, -1] as const" :key="`now${side}`" :d="leg(side, foot / 2)" :class="drawing.foot === null ? 'hidden' : 'wood'" />
    <path v-if="drawing.foot === null || Math.abs(drawing.foot - drawing.foot_then) > 0.04" :d="`${leg(1, half)} ${leg(-1, half)}`" class="wanted" />
    <path :d="arch" class="outline" />
    <path :d="arch" class="thin" :transform="`translate(0 ${3 * scale})`" />
    <rect :x="Math.min(x(barAt), x(barAt - barHand * wide))" :y="belly(barAt) + 3 * scale" :width="wide * scale" height="34" :class="drawing.inset === null ? 'hidden' : 'wood'" />
    <text :x="x(barAt - (barHand * wide) / 2)" :y="belly(barAt) + 3 * scale + 52" class="middle small">{{ t('bar') }}</text>
    <template v-if="post !== null">
      <rect :x="x(post) - (drawing.post / 2) * scale" :y="belly(post) + 3 * scale" :width="drawing.post * scale" height="46" class="hidden" />
      <text :x="x(post)" :y="belly(post) + 3 * scale + 64" class="middle small">{{ t('post_wanted') }}</text>
    </template>
    <g>
      <path :d="`M${x(barHand * half)} ${BELLY - LEG - 14} V${BELLY - LEG - 4} M${x(barAt)} ${BELLY - LEG - 14} V${BELLY + 20} M${x(barHand * half)} ${BELLY - LEG - 9} H${x(barAt)}`" class="thin" />
      <text :x="x((barHand * half + barAt) / 2)" :y="BELLY - LEG - 18" class="middle big" :class="drawing.side">{{ mm(drawing.inset_then, 1) }}{{ drawing.side === 'above' ? '▲' : drawing.side === 'below' ? '▼' : '' }}</text>
      <text :x="width / 2" :y="BELLY - LEG - 18" class="middle small">{{ t('wanted', { mm: mm(drawing.low, 1), mm2: mm(drawing.high, 1) }) }}</text>
    </g>
    <text x="10" y="20" class="small">{{ hands[0] }}</text>
    <text :x="width - 10" y="20" class="end small">{{ hands[1] }}</text>
    <g v-if="blanks.length">
      <line x1="40" :x2="width - 40" :y1="AXIS" :y2="AXIS" class="thin" />
      <text :x="width - 8" :y="AXIS - 12" class="end small quiet">{{ t('blanks') }}</text>
      <g v-for="blank in blanks" :key="blank.value" role="button" tabindex="0" :aria-label="t('blank_of', { blank: blank.value })" :aria-pressed="blank.isTried" class="blank" @click="emit('blank', blank.value)" @keydown.enter.prevent="emit('blank', blank.value)">
        <rect :x="blank.at - 22" :y="AXIS - 12" width="44" height="44" class="hit" />
        <line :x1="blank.at" :x2="blank.at" :y1="AXIS - 8" :y2="AXIS + 8" :class="blank.isTried ? 'wanted' : 'outline'" />
        <text :x="blank.at" :y="AXIS + 26" class="middle" :class="{ bold: blank.isTried }">{{ blank.value }}</text>
      </g>
    </g>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
<style scoped>
.blank {
  cursor: pointer;
}
.hit {
  fill: transparent;
}
.blank:focus-visible .hit {
  stroke: var(--action);
  stroke-width: 3;
}
.blank:focus-visible {
  outline: none;
}
</style>
