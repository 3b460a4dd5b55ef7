<script setup lang="ts">
/** The instrument from all sides, with each mark at its place; a click says where the next one is. */
import { computed, ref } from 'vue'
import type { DamageMap } from '@/api'
import { facesOf, clicked, placed, type Face, type FaceName } from './faces'
import { t } from '@/words/damage'

/** Of what is being marked: its places as far as they are known. [mm] */
export interface Placing {
  face: string
  along: number | null
  across: number | null
  toAlong: number | null
  toAcross: number | null
}
const props = defineProps<{ map: DamageMap; family: string; leftHanded: boolean; placing: Placing; chosen: string }>()
const emit = defineEmits<{ place: [face: FaceName, along: number, across: number]; choose: [thing: string] }>()
const faces = computed(() => facesOf({ family: props.family, length: props.map.body_length, leftHanded: props.leftHanded }))
const svg = ref<SVGSVGElement | null>(null)
const labelOf = (name: string) => props.map.faces.find((one) => one.key === name)?.label ?? name
const faceOf = (name: string) => faces.value.all.find((one) => one.name === name)

function click(face: Face, event: MouseEvent): void {
  const matrix = svg.value?.getScreenCTM()
  if (!matrix || !props.map.may_mark) return
  const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse())
  const place = clicked(face, at.x, at.y)
  if (place) emit('place', face.name, place.along, place.across)
}
const drawn = computed(() =>
  props.map.marks.flatMap((mark) => {
    const face = faceOf(mark.face)
    if (!face) return []
    const from = placed(face, mark.across, mark.along)
    const to = mark.to_along !== null && mark.to_across !== null ? placed(face, mark.to_across, mark.to_along) : null
    return [{ mark, from, to }]
  }),
)
const placing = computed(() => {
  const { face: name, along, across, toAlong, toAcross } = props.placing
  const face = faceOf(name)
  if (!face || along === null) return null
  return { from: placed(face, across ?? 0, along), to: toAlong === null ? null : placed(face, toAcross ?? 0, toAlong) }
})
</script>

<template>
  <div class="around">
  <svg ref="svg" :viewBox="`0 0 ${faces.wide} ${faces.tall}`" role="group" :aria-label="t('the_map')" :style="{ '--unit': faces.unit }">
    <g v-for="face in faces.all" :key="face.name" :class="{ open: map.may_mark }" @click="click(face, $event)">
      <rect :x="face.left" :y="face.top" :width="face.wide" :height="face.tall" class="hit" />
      <path :d="face.outline" class="outline" />
      <g v-for="(hole, i) in face.holes" :key="i">
        <path :d="hole.path" class="hole" />
        <circle v-for="(eye, n) in hole.eyes" :key="n" :cx="eye[0]" :cy="eye[1]" :r="3.4 * faces.unit" class="eye" />
      </g>
      <text :x="face.left + face.wide / 2" :y="face.top - 7 * faces.unit" class="name">{{ labelOf(face.name) }}</text>
    </g>
    <g v-for="{ mark, from, to } in drawn" :key="mark.thing" role="button" tabindex="0" class="mark" :class="[mark.state, { chosen: mark.thing === chosen }]" :aria-label="t('mark_said', { place: mark.place, label: mark.label, where: mark.where, how: mark.how })" @click.stop="emit('choose', mark.thing)" @keydown.enter.prevent="emit('choose', mark.thing)">
      <line v-if="to" :x1="from[0]" :y1="from[1]" :x2="to[0]" :y2="to[1]" class="under" />
      <line v-if="to" :x1="from[0]" :y1="from[1]" :x2="to[0]" :y2="to[1]" class="line" />
      <circle :cx="from[0]" :cy="from[1]" :r="9 * faces.unit" class="place" />
      <text :x="from[0]" :y="from[1] + 4.4 * faces.unit" class="number">{{ mark.place }}</text>
    </g>
    <g v-if="placing" class="placing" aria-hidden="true">
      <line v-if="placing.to" :x1="placing.from[0]" :y1="placing.from[1]" :x2="placing.to[0]" :y2="placing.to[1]" class="line" />
      <path v-for="(at, i) in [placing.from, ...(placing.to ? [placing.to] : [])]" :key="i" :d="`M${at[0] - 7 * faces.unit} ${at[1]} h${14 * faces.unit} M${at[0]} ${at[1] - 7 * faces.unit} v${14 * faces.unit}`" class="cross" />
    </g>
  </svg>
  </div>
</template>

<style scoped>
/* A telephone shows a part of it, large enough to tap, and the rest aside. */
.around {
  overflow-x: auto;
}
svg {
  display: block;
  width: 100%;
  min-width: 520px;
  max-height: 58vh;
}
.hit {
  fill: transparent;
}
.open {
  cursor: crosshair;
}
.outline,
.hole {
  fill: none;
  stroke: var(--ink);
  stroke-width: calc(1.6px * var(--unit));
}
.outline {
  fill: var(--sheet);
}
.eye {
  fill: var(--ink);
}
.name {
  fill: var(--quiet);
  font-size: calc(12px * var(--unit));
  text-anchor: middle;
}
.mark {
  cursor: pointer;
  outline: none;
}
.under {
  stroke: var(--sheet);
  stroke-width: calc(8px * var(--unit));
  stroke-linecap: round;
}
.line {
  stroke: var(--ink);
  stroke-width: calc(4px * var(--unit));
}
.stable .line,
.repaired .line {
  stroke-width: calc(2px * var(--unit));
}
.repaired .line {
  stroke-dasharray: calc(6px * var(--unit)) calc(4px * var(--unit));
}
.poor .line {
  stroke-dasharray: calc(10px * var(--unit)) calc(3px * var(--unit));
}
.place {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: calc(1.4px * var(--unit));
}
.open .place,
.poor .place {
  stroke-width: calc(3px * var(--unit));
}
.chosen .place,
.mark:focus-visible .place {
  fill: var(--ink);
}
.number {
  fill: var(--ink);
  font-size: calc(12px * var(--unit));
  font-weight: 700;
  text-anchor: middle;
  pointer-events: none;
}
.chosen .number,
.mark:focus-visible .number {
  fill: var(--sheet);
}
.placing .line,
.cross {
  stroke: var(--action);
  stroke-width: calc(2px * var(--unit));
}
</style>
