<script setup lang="ts">
/** What the strings press: from the side at their true angles, and on each foot from the tailpiece. */
import { computed } from 'vue'
import type { DrawnLoad } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnLoad; width: number; height: number; leftHanded: boolean }>()

const SIDE = 200
const TOP = 70
const BASE = 196
const FEET = 486
const rad = (degrees: number) => (degrees * Math.PI) / 180
const pulls = computed(() => props.drawing.pulls)
const presses = computed(() => props.drawing.presses)
/** Both bars on one scale. */
const long = (force: number) => (force / Math.max(1, pulls.value)) * 170
const foot = (force: number) => 20 + (force / Math.max(1, props.drawing.bass, props.drawing.treble)) * 50
const hand = computed(() => (props.leftHanded ? -1 : 1))
const spread = computed(() => 2 * Math.max(1, ...props.drawing.offsets.map(Math.abs)))
const x = (offset: number) => FEET + hand.value * (offset / spread.value) * 150
const feet = computed(() => [
  { name: 'bass', at: x(-props.drawing.feet_apart / 2), force: props.drawing.bass },
  { name: 'treble', at: x(props.drawing.feet_apart / 2), force: props.drawing.treble },
])
const string = (reach: number, degrees: number, side: 1 | -1) => `${SIDE + side * reach} ${TOP + reach * Math.tan(rad(degrees))}`
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="t('side_view_degrees_over_the', { mm: mm(drawing.over, 1), mm2: mm(presses, 0), mm3: mm(drawing.bass, 0), mm4: mm(drawing.treble, 0) })">
    <path :d="`M30 ${BASE + 12} Q${SIDE} ${BASE - 12} 370 ${BASE + 12}`" class="outline" />
    <path :d="`M${SIDE - 6} ${TOP} h12 l5 ${BASE - TOP} h-22 Z`" class="wood" />
    <path :d="`M${string(165, drawing.front, -1)} L${SIDE} ${TOP} L${string(150, drawing.behind, 1)}`" class="outline" />
    <path :d="`M${SIDE} ${TOP - 52} v36`" class="arrow" />
    <path :d="`M${SIDE - 7} ${TOP - 18} h14 l-7 14 Z`" class="head" />
    <text :x="SIDE + 14" :y="TOP - 34" class="big">{{ mm(presses, 0) }} N</text>
    <text :x="SIDE + 14" :y="TOP - 14" class="small">{{ t('kg_on_the_top', { mm: mm(drawing.presses_kg, 1) }) }}</text>
    <text :x="SIDE - 20" :y="TOP + 92" class="end">{{ mm(drawing.over, 1) }}°</text>
    <text :x="SIDE - 20" :y="TOP + 108" class="end small quiet">{{ t('over_the_bridge') }}</text>
    <text x="30" :y="TOP + 62" class="small quiet">{{ t('to_the_nut', { mm: mm(drawing.front, 1) }) }}</text>
    <text x="370" :y="TOP + 62" class="end small quiet">{{ t('to_the_tail', { mm: mm(drawing.behind, 1) }) }}</text>

    <path :d="`M${FEET - 96} 92 Q${FEET} 40 ${FEET + 96} 92 L${FEET + 70} 150 H${FEET + 30} Q${FEET} 120 ${FEET - 30} 150 H${FEET - 70} Z`" class="wood" />
    <g v-for="(name, i) in drawing.names" :key="name">
      <line :x1="x(drawing.offsets[i] ?? 0)" :x2="x(drawing.offsets[i] ?? 0)" y1="22" :y2="26 + (drawing.forces[i] ?? 0) / Math.max(1, presses) * 90" class="outline" />
      <text :x="x(drawing.offsets[i] ?? 0)" y="16" class="middle bold">{{ name }}</text>
    </g>
    <g v-for="one in feet" :key="one.name">
      <path :d="`M${one.at} 154 v${foot(one.force) - 10}`" class="arrow" />
      <path :d="`M${one.at - 7} ${142 + foot(one.force)} h14 l-7 14 Z`" class="head" />
      <text :x="one.at" :y="178 + foot(one.force)" class="middle bold">{{ mm(one.force, 0) }} N</text>
      <text :x="one.at + (one.at < FEET ? -14 : 14)" y="172" class="small quiet" :class="{ end: one.at < FEET }">{{ one.name }}</text>
    </g>
    <rect x="30" :y="height - 34" :width="long(pulls)" height="10" class="paper" />
    <rect x="30" :y="height - 20" :width="long(presses)" height="10" class="head" />
    <text :x="38 + long(pulls)" :y="height - 24" class="small">{{ t('n_the_strings_pull', { mm: mm(pulls, 0) }) }}</text>
    <text :x="38 + long(presses)" :y="height - 9" class="small">{{ t('n_on_the_top', { mm: mm(presses, 0) }) }}</text>
  </svg>
</template>

<style scoped src="./drawn.css"></style>
