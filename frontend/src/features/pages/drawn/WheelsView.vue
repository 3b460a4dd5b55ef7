<script setup lang="ts">
/** The height wheels of a bass bridge: each turned how far and which way, from the tailpiece and from above. */
import { computed } from 'vue'
import type { DrawnWheels } from '@/api'
import { eighths, mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnWheels; width: number; height: number; leftHanded: boolean }>()

const APART = 230
const WHEEL = 64
const UNDER = 150
const hand = computed(() => (props.leftHanded ? -1 : 1))
const middle = computed(() => props.width / 2)
const wheels = computed(() =>
  ([[t('bass'), -1, props.drawing.bass, props.drawing.bass_turns], [t('treble'), 1, props.drawing.treble, props.drawing.treble_turns]] as const).map(([name, side, leg, turns]) => {
    const at = middle.value + hand.value * side * (APART / 2)
    const out = Math.sign(at - middle.value)
    const part = turns - Math.trunc(turns)
    const angle = 2 * Math.PI * part
    return { name, at, out, leg, turns, way: turns < 0 ? t('down') : t('up'), says: t(Math.abs(turns) > 1 ? 'turns' : 'turn', { count: eighths(Math.abs(turns)) }), finish: [Math.sin(angle), -Math.cos(angle)] as const }
  }),
)
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="wheels.map((one) => t('wheel_mm', { name: one.name, says: one.says, way: one.way, mm: mm(Math.abs(one.leg)) })).join('; ')">
    <path :d="`M${middle - 150} 74 Q${middle} 10 ${middle + 150} 74 L${middle + 132} 112 H${middle + 98} Q${middle} 78 ${middle - 98} 112 H${middle - 132} Z`" class="wood" />
    <path :d="`M${middle - 190} 208 Q${middle} 184 ${middle + 190} 208`" class="outline" />
    <g v-for="one in wheels" :key="one.name">
      <rect :x="one.at - 5" y="112" width="10" height="74" class="paper" />
      <rect :x="one.at - WHEEL / 2" :y="UNDER - 11" :width="WHEEL" height="18" rx="4" class="paper" />
      <path :d="Array.from({ length: 7 }, (_, i) => `M${one.at - 24 + i * 8} ${UNDER - 11} v18`).join(' ')" class="thin" />
      <path :d="`M${one.at - 26} 198 L${one.at - 18} 180 H${one.at + 18} L${one.at + 26} 198 Z`" class="wood" />
      <path :d="`M${one.at + one.out * 48} ${one.way === 'down' ? UNDER - 34 : UNDER + 32} v${one.way === 'down' ? 42 : -42}`" class="arrow" />
      <path :d="one.way === 'down' ? `M${one.at + one.out * 48 - 7} ${UNDER + 8} h14 l-7 13 Z` : `M${one.at + one.out * 48 - 7} ${UNDER - 10} h14 l-7 -13 Z`" class="head" />
      <text :x="one.at + one.out * 64" :y="UNDER - 14" class="big" :class="{ end: one.out < 0 }">{{ one.says }}</text>
      <text :x="one.at + one.out * 64" :y="UNDER + 6" class="bold" :class="{ end: one.out < 0 }">{{ one.way }}</text>
      <text :x="one.at + one.out * 64" :y="UNDER + 26" class="small" :class="{ end: one.out < 0 }">{{ t('mm_3', { mm: mm(Math.abs(one.leg)) }) }}</text>
      <g :transform="`translate(${one.at + one.out * 150} 74)`">
        <circle r="28" class="paper" />
        <circle r="5" class="thin" />
        <line x1="0" y1="-12" x2="0" y2="-28" class="before" />
        <line :x1="one.finish[0] * 12" :y1="one.finish[1] * 12" :x2="one.finish[0] * 28" :y2="one.finish[1] * 28" class="wanted" />
      </g>
      <text :x="one.at" y="232" class="middle small">{{ one.name }}</text>
    </g>
    <text :x="middle" y="252" class="middle small quiet">{{ t('wheels_from_above_pencil_mark') }}</text>
    <text v-for="({ name, now, then }, i) in drawing.heights" :key="name" :x="i ? width - 10 : 10" y="20" :class="{ end: i }">{{ t('to_2', { name, mm: mm(now, 1) }) }} <tspan class="bold">{{ mm(then, 1) }}</tspan></text>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
