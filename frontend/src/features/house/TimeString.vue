<script setup lang="ts">
/** One visit as a string across time: what was done, what is waited for, where the next hand is needed, the day promised. */
import { computed } from 'vue'
import type { Tag } from '@/api'
import { day, until } from '@/shared/format'
import type { Axis } from './axis'
import { t } from '@/words/house'

const props = defineProps<{ tag: Tag; axis: Axis; width: number; now: number }>()

const HEIGHT = 44
const MIDDLE = 22
/** Works closer together than this are drawn as one. [px] */
const APART = 9
const x = (when: number) => props.axis.at(when) * props.width

const begins = computed(() => x(Date.parse(props.tag.opened_at)))
const here = computed(() => props.axis.now * props.width)
const dots = computed(() => {
  const found: { at: number; words: string[] }[] = []
  for (const one of props.tag.done) {
    const at = x(Date.parse(one.at))
    const words = `${one.work}, ${one.by}, ${day(one.at)}`
    const last = found.at(-1)
    if (last && at - last.at < APART) last.words.push(words)
    else found.push({ at, words: [words] })
  }
  return found
})
const wait = computed(() => {
  if (!props.tag.waits_until) return null
  const when = Date.parse(props.tag.waits_until)
  return when > props.now ? { to: Math.max(x(when), here.value + 12), words: t('until', { waits_for: props.tag.waits_for, until: until(props.tag.waits_until) }) } : null
})
/** The day that something is owed, at its noon. */
const owed = computed(() => {
  const date = [props.tag.deadline, props.tag.promised].filter((one): one is string => one !== null).sort()[0]
  return date ? x(Date.parse(`${date}T12:00`)) : null
})
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${HEIGHT}`" :width="width" :height="HEIGHT" aria-hidden="true" class="string">
    <line v-for="one in axis.days" :key="one.when" :x1="one.at * width" :x2="one.at * width" y1="0" :y2="HEIGHT" class="rule" />
    <line :x1="axis.today * width" :x2="axis.today * width" y1="0" :y2="HEIGHT" class="rule" />
    <line :x1="axis.later * width" :x2="axis.later * width" y1="0" :y2="HEIGHT" class="rule" />
    <line x1="0" :x2="width" :y1="MIDDLE" :y2="MIDDLE" class="ahead" />
    <line :x1="begins" :x2="here" :y1="MIDDLE" :y2="MIDDLE" class="behind" />
    <line v-if="wait" :x1="here" :x2="wait.to - 7" :y1="MIDDLE" :y2="MIDDLE" class="waits" />
    <line :x1="here" :x2="here" y1="0" :y2="HEIGHT" class="now" />
    <rect :x="begins - 2" :y="MIDDLE - 6" width="4" height="12" class="came" />
    <circle v-for="(dot, i) in dots" :key="i" :cx="dot.at" :cy="MIDDLE" r="5" class="done"><title>{{ dot.words.join('; ') }}</title></circle>
    <circle v-if="wait" :cx="wait.to" :cy="MIDDLE" r="6" class="ring"><title>{{ wait.words }}</title></circle>
    <rect v-else :x="here - 7" :y="MIDDLE - 7" width="14" height="14" class="hand" :class="{ owner: tag.of_owner }" />
    <text v-if="tag.of_owner && !wait" :x="here" :y="MIDDLE + 5" class="asks">?</text>
    <path v-if="owed !== null" :d="`M${owed - 4} ${MIDDLE - 11} h8 l3 22 h-14 Z`" class="peg" />
  </svg>
</template>

<style scoped>
.string {
  display: block;
}
.rule {
  stroke: var(--hairline);
}
.ahead {
  stroke: var(--hairline);
  stroke-width: 1.5;
}
.behind {
  stroke: var(--ink);
  stroke-width: 2;
}
.waits {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 2 4;
}
.now {
  stroke: var(--action);
  stroke-width: 1.5;
}
.came,
.done,
.peg {
  fill: var(--ink);
}
.ring {
  fill: var(--sheet);
  stroke: var(--action);
  stroke-width: 3;
}
.hand {
  fill: var(--action);
}
.hand.owner {
  fill: var(--sheet);
  stroke: var(--action);
  stroke-width: 2.5;
}
.asks {
  fill: var(--action);
  font-size: 13px;
  font-weight: 700;
  text-anchor: middle;
}
</style>
