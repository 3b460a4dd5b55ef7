<script setup lang="ts">
/** The instrument from the front: each part with its state, and the way to its page. */
import { computed, ref } from 'vue'
import type { InstrumentView, PartView } from '@/api'
import { routeOfPart, SHORT, type PartName } from './parts'
import { MAP, shapeOf } from './shape'
import StateMark from './StateMark.vue'
import { t } from '@/words/map'

const props = defineProps<{ instrument: InstrumentView; parts: PartView[]; here: PartName | '' }>()

const shape = computed(() =>
  shapeOf({
    family: props.instrument.family,
    strings: props.instrument.string_names.length,
    leftHanded: props.instrument.left_handed,
    oppositeBuild: props.instrument.opposite_build,
  }),
)

const RIGHT = 146
const PITCH = 44
const QUIET: PartView['state'][] = ['in_order', 'unknown']

interface Label {
  part: PartView
  name: string
  x: number
  y: number
  leader: string
}
/** Names stand beside their part: at the neck one under the other, in the lower bout on either side of the tailpiece. */
const labels = computed((): Label[] => {
  const at = shape.value
  const barSide = at.post.at[0] > MAP.middle ? 30 : 124
  const postSide = barSide === 30 ? 124 : 30
  const high = at.lowerBout.y - 32
  const low = at.lowerBout.y + 14
  const neckAt = (y: number) => `M${RIGHT - 12} ${y} L${MAP.middle + at.nut.half + 6}`
  const places: Record<PartName, [number, number, string]> = {
    pegs: [RIGHT, 34, ''],
    nut: [RIGHT, 34 + PITCH, `${neckAt(34 + PITCH)} ${at.nut.y}`],
    board: [RIGHT, 34 + 2 * PITCH, `${neckAt(34 + 2 * PITCH)} ${34 + 2.3 * PITCH}`],
    neck: [RIGHT, 34 + 3 * PITCH, `${neckAt(34 + 3 * PITCH)} ${34 + 3.3 * PITCH}`],
    strings: [14, 34 + 2 * PITCH, ''],
    bridge: [RIGHT + 4, at.bridge.y - 6, ''],
    bar: [barSide, high, ''],
    post: [postSide, high, ''],
    body: [30, low, ''],
    tailpiece: [124, low, ''],
  }
  return props.parts.map((part) => {
    const [x, y, leader] = places[part.part]
    return { part, name: SHORT[part.part] ?? part.label, x, y, leader }
  })
})
const isOpen = (part: PartView) => !QUIET.includes(part.state)
/** It begins with what stands there, so that whoever says what they see reaches it. */
function spoken(part: PartView): string {
  const name = SHORT[part.part] ?? part.label
  const seen = isOpen(part) ? t('text_2', { name, mark: part.mark }) : name
  return [seen, name === part.label ? '' : part.label.toLowerCase(), part.says].filter(Boolean).join(', ')
}

const map = ref<HTMLElement | null>(null)
/** From one part to another with the arrows, or by the letter its name begins with; the last one wins from where it stands. */
function onKey(event: KeyboardEvent): void {
  const links = [...(map.value?.querySelectorAll<SVGAElement>('a') ?? [])]
  const at = links.indexOf(document.activeElement as unknown as SVGAElement)
  if (at < 0 || event.ctrlKey || event.metaKey || event.altKey) return
  let to = -1
  if (event.key === 'ArrowDown' || event.key === 'ArrowRight') to = (at + 1) % links.length
  else if (event.key === 'ArrowUp' || event.key === 'ArrowLeft') to = (at + links.length - 1) % links.length
  else if (/^[a-z]$/i.test(event.key)) {
    const round = [...links.slice(at + 1), ...links.slice(0, at + 1)]
    const found = round.find((link) => link.dataset['name']?.toLowerCase().startsWith(event.key.toLowerCase()))
    to = found ? links.indexOf(found) : -1
  }
  if (to < 0) return
  event.preventDefault()
  event.stopPropagation()
  links[to]?.focus()
}
/** The part that is open, or the first. */
function focus(): void {
  const links = [...(map.value?.querySelectorAll<SVGAElement>('a') ?? [])]
  ;(links.find((link) => link.getAttribute('aria-current')) ?? links[0])?.focus()
}
defineExpose({ focus })
</script>

<template>
  <nav ref="map" class="map" :aria-label="t('parts_of_the_instrument')" @keydown="onKey">
    <svg :viewBox="`0 0 ${MAP.width} ${MAP.height}`" role="presentation">
      <g aria-hidden="true" class="instrument">
        <path :d="shape.outline" class="body" :class="{ work: parts.some((one) => one.part === 'body' && one.state === 'work') }" />
        <g v-for="(hole, i) in shape.holes" :key="i">
          <path :d="hole.path" class="hole" />
          <circle v-for="(eye, e) in hole.eyes" :key="e" :cx="eye[0]" :cy="eye[1]" r="2.6" class="eye" />
        </g>
        <path :d="shape.bar" class="hidden" :class="{ here: here === 'bar' }" />
        <circle :cx="shape.post.at[0]" :cy="shape.post.at[1]" :r="shape.post.r" class="hidden" :class="{ here: here === 'post' }" />
        <path :d="shape.neck" class="line" :class="{ here: here === 'neck' }" />
        <path :d="shape.head" class="line" />
        <circle :cx="shape.scroll.at[0]" :cy="shape.scroll.at[1]" :r="shape.scroll.r" class="line" />
        <circle :cx="shape.scroll.at[0]" :cy="shape.scroll.at[1]" :r="shape.scroll.r * 0.35" class="line" />
        <g v-for="(peg, i) in shape.pegs" :key="`peg${i}`" :class="{ here: here === 'pegs' }">
          <line :x1="peg.from[0]" :y1="peg.from[1]" :x2="peg.to[0]" :y2="peg.to[1]" class="line" />
          <template v-if="shape.hasMachines">
            <rect :x="Math.min(peg.from[0], peg.from[0] + Math.sign(peg.to[0] - peg.from[0]) * 3)" :y="peg.to[1] - 6" width="3" height="12" class="line" />
            <path :d="`M${peg.to[0]} ${peg.to[1]} v-4 h${Math.sign(peg.to[0] - peg.from[0]) * 5} v8 h${-Math.sign(peg.to[0] - peg.from[0]) * 5} Z`" class="line" />
          </template>
          <ellipse v-else :cx="peg.to[0]" :cy="peg.to[1]" rx="4" ry="5.5" class="line" />
        </g>
        <path :d="shape.board" class="board" :class="{ here: here === 'board' }" />
        <path v-for="(string, i) in shape.strings" :key="`string${i}`" :d="string" class="string" :class="{ here: here === 'strings' }" />
        <line :x1="MAP.middle - shape.nut.half" :x2="MAP.middle + shape.nut.half" :y1="shape.nut.y" :y2="shape.nut.y" class="nut" :class="{ here: here === 'nut' }" />
        <rect :x="MAP.middle - shape.bridge.half" :y="shape.bridge.y - 2.5" :width="shape.bridge.half * 2" height="5" class="bridge" :class="{ here: here === 'bridge' }" />
        <path :d="shape.tailpiece" class="tail" :class="{ here: here === 'tailpiece' }" />
        <template v-if="shape.endpin">
          <line :x1="MAP.middle" :x2="shape.endpin[0]" :y1="shape.tailEnd[1]" :y2="shape.endpin[1]" class="line" />
        </template>
        <path v-for="label in labels" :key="`to-${label.part.part}`" :d="label.leader" class="leader" />
      </g>
      <router-link v-for="label in labels" :key="label.part.part" v-slot="{ href, navigate }" custom :to="routeOfPart(instrument.ticket, label.part.part, instrument.family)">
        <a
          :href="href"
          :data-name="label.name"
          :aria-label="spoken(label.part)"
          :aria-current="label.part.part === here ? 'page' : undefined"
          class="part"
          :class="{ current: label.part.part === here }"
          :transform="`translate(${label.x} ${label.y})`"
          @click="navigate"
        >
          <rect x="-12" y="-16" width="98" :height="isOpen(label.part) ? 44 : 32" rx="3" class="hit" />
          <g transform="translate(0 0)"><StateMark :state="label.part.state" :done="label.part.done" /></g>
          <text :x="label.part.done ? 16 : 13" y="5" class="name">{{ label.name }}</text>{{ ' ' }}
          <text v-if="isOpen(label.part)" x="-7" y="21" class="says">{{ label.part.mark }}</text>
        </a>
      </router-link>
      <text v-if="instrument.left_handed" :x="MAP.middle - shape.lowerBout.half + 4" :y="MAP.height - 2" class="hand">{{ t('treble') }}</text>
      <text v-if="instrument.left_handed" :x="MAP.middle + shape.lowerBout.half - 4" :y="MAP.height - 2" class="hand" text-anchor="end">{{ t('bass') }}</text>
    </svg>
  </nav>
</template>

<style scoped>
/* Its size is the column's, never its own drawing's: a letter that changes elsewhere lays no drawing out again. */
.map {
  position: relative;
  min-height: 0;
  contain: size layout;
}
svg {
  position: absolute;
  inset: 0;
  display: block;
  width: 100%;
  height: 100%;
}
.instrument {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
.body {
  stroke-width: 1.6;
}
.body.work {
  stroke-width: 3;
}
.board {
  fill: var(--note);
}
.tail {
  fill: var(--note);
}
.string {
  stroke-width: 0.8;
}
.hidden {
  stroke-dasharray: 5 3;
  stroke-width: 1.2;
}
.eye {
  fill: var(--sheet);
}
.nut {
  stroke-width: 4;
}
.bridge {
  fill: var(--ink);
  stroke: none;
}
.leader {
  stroke-width: 0.75;
  stroke: var(--quiet);
}
.here {
  stroke: var(--action);
  stroke-width: 3;
}
.bridge.here {
  fill: var(--action);
  stroke: none;
}
.string.here {
  stroke-width: 1.6;
}
.part {
  color: var(--ink);
  fill: var(--ink);
  outline: none;
  cursor: pointer;
  text-decoration: none;
}
.hit {
  fill: transparent;
}
.name {
  font-size: 15px;
  font-weight: 700;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 3px;
}
.says {
  font-size: 13.5px;
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 3px;
}
.part:hover .hit {
  fill: var(--note);
}
.current {
  color: var(--on-chosen);
  fill: var(--on-chosen);
  --mark-above: var(--on-chosen);
  --mark-below: var(--on-chosen);
  --mark-on: var(--chosen);
}
.current .hit,
.current:hover .hit {
  fill: var(--chosen);
}
.current :is(.name, .says) {
  stroke: none;
}
.part:focus-visible .hit {
  stroke: var(--action);
  stroke-width: 3;
}
.hand {
  font-size: 13px;
  fill: var(--quiet);
}
</style>
