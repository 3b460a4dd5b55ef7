<script setup lang="ts">
/** One note of one string over the board: the string at rest, the room that it swings in, and the board under it. */
import { computed } from 'vue'
import type { DrawnSwing } from '@/api'
import { mm } from '@/shared/format'
import { t } from '@/words/pages'

const props = defineProps<{ drawing: DrawnSwing; names: string[]; width: number; height: number }>()
const emit = defineEmits<{ shown: [name: string]; note: [semitone: number] }>()

const LEFT = 14
const RIGHT = 20
const FLOOR = 150
const shown = computed(() => Math.max(...props.drawing.swing.map((one) => one.rest), 1))
/** How many times larger heights are drawn than lengths. */
const stretch = computed(() => Math.max(1, Math.round((108 / shown.value) / scale.value)))
const scale = computed(() => (props.width - LEFT - RIGHT) / props.drawing.length)
const x = (place: number) => LEFT + place * scale.value
const y = (over: number) => FLOOR - over * scale.value * stretch.value
const line = (points: (readonly [number, number])[]) => points.map(([a, b]) => `${x(a).toFixed(1)} ${y(b).toFixed(1)}`).join(' L')
const rest = computed(() => props.drawing.swing.map((one) => [one.place, one.rest] as const))
const low = computed(() => props.drawing.swing.map((one) => [one.place, one.lowest] as const))
const surface = computed(() => props.drawing.surface.map(([place = 0, at = 0]) => [place, at] as const))
const least = computed(() => Math.min(...props.drawing.stops.map((one) => one.room)))
const notes = computed(() => props.drawing.stops.map((one, i) => ({ ...one, i })))
const said = computed(() => `${props.drawing.name}: ${props.drawing.stops.map(({ room, note }) => `${note} ${mm(room)}${room < 0 ? ', touches' : ''}`).join('; ')}`)
</script>

<template>
  <div class="swing">
    <div class="tabs" role="group" :aria-label="t('string')">
      <button v-for="name in names" :key="name" type="button" class="plain-button tab" :aria-pressed="name === drawing.name" @click="emit('shown', name)">{{ name }}</button>
      <span class="quiet">{{ t('heights', { stretch }) }}</span>
    </div>
    <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="said">
      <path :d="`M${line(surface)} L${x(drawing.board)} ${y(0) + 34} L${LEFT} ${y(0) + 34} Z`" class="wood" />
      <path :d="`M${x(0)} ${y(0)} L${x(drawing.board)} ${y(0)}`" class="before" />
      <path :d="`M${line(rest)} L${line([...low].reverse())} Z`" class="room" />
      <path :d="`M${line(low)}`" class="thin" />
      <path :d="`M${line(rest)}`" class="wanted" />
      <path :d="`M${x(drawing.length) - 5} ${y(0) + 34} L${x(drawing.length) - 2} ${y(drawing.swing.at(-1)?.rest ?? 0)} h4 L${x(drawing.length) + 5} ${y(0) + 34} Z`" class="wood" />
      <circle v-if="drawing.semitone" :cx="x(drawing.swing[0]?.place ?? 0)" :cy="y(drawing.swing[0]?.rest ?? 0) - 7" r="7" class="finger" />
    </svg>
    <div class="notes" role="group" :aria-label="t('note')">
      <button v-for="note in notes" :key="note.i" type="button" class="plain-button note" :class="{ touches: note.room < 0, least: note.room === least }" :aria-pressed="note.i === drawing.semitone" @click="emit('note', note.i)">
        <b>{{ note.note }}</b>{{ ' ' }}<span>{{ note.room < 0 ? '▼' : '' }}{{ mm(note.room, 1) }}</span>
      </button>
    </div>
  </div>
</template>

<style scoped src="./drawn.css"></style>
<style scoped>
.tabs {
  display: flex;
  align-items: center;
  gap: 4px;
}
.tab {
  min-width: var(--hit);
  min-height: var(--hit);
  text-align: center;
  font-weight: 700;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.tab[aria-pressed='true'],
.note[aria-pressed='true'] {
  background: var(--chosen);
  color: var(--on-chosen);
}
.tabs .quiet {
  margin-left: auto;
  font-size: 0.875rem;
  color: var(--quiet);
}
.room {
  fill: var(--action);
  fill-opacity: 0.16;
  stroke: none;
}
.finger {
  fill: var(--ink);
}
.notes {
  display: flex;
  overflow-x: auto;
  scrollbar-width: thin;
  gap: 2px;
}
.note {
  flex: 1 0 44px;
  min-height: var(--hit);
  text-align: center;
  line-height: 1.15;
  border-radius: var(--corner);
}
.note span {
  display: block;
  font-size: 0.875rem;
}
.least {
  box-shadow: inset 0 0 0 2px var(--ink);
}
.touches span {
  font-weight: 700;
  color: var(--below);
}
.note.touches[aria-pressed='true'] span {
  color: inherit;
}
</style>
