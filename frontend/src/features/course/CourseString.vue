<script setup lang="ts">
/** The course: a string stretched from nut to bridge, the visit's steps its stopped places. */
import { computed } from 'vue'
import type { Stop } from '@/api'
import { until } from '@/shared/format'
import { t } from '@/words/course'

const props = defineProps<{ stops: Stop[] }>()
/** So many stops have room for what is said beside their names. */
const ROOMY = 9
/** On a phone only the stop where the work stands, or what it waits for, is named under the string. */
const here = computed(() => props.stops.find((stop) => stop.state === 'here') ?? props.stops.find((stop) => stop.state === 'waiting') ?? null)
const emit = defineEmits<{ open: [stop: Stop] }>()

const WORDS: Record<Stop['state'], string> = {
  done: t('done'),
  passed: t('skipped'),
  here: t('you_are_here'),
  ahead: t('ahead'),
  waiting: t('waits'),
  barred: t('not_yet'),
}

function noteOf(stop: Stop): string {
  if (stop.until) return t('until', { until: until(stop.until) })
  return stop.state === 'passed' ? t('skipped') : stop.note
}
function spoken(stop: Stop): string {
  const note = stop.state === 'passed' ? '' : noteOf(stop)
  return note ? t('text', { step: stop.label, note, state: WORDS[stop.state] }) : t('text_2', { step: stop.label, state: WORDS[stop.state] })
}
</script>

<template>
  <ol class="course" :class="{ crowded: stops.length > ROOMY }" :aria-label="t('course_of_this_visit')">
    <li v-for="stop in stops" :key="stop.key" :class="stop.state" :aria-current="stop.state === 'here' ? 'step' : undefined">
      <button type="button" class="plain-button stop" :aria-label="spoken(stop)" :title="stop.says" @click="emit('open', stop)">
        <svg viewBox="0 0 28 28" width="28" height="28" aria-hidden="true">
          <circle v-if="stop.state === 'here'" cx="14" cy="14" r="9" />
          <circle v-else cx="14" cy="14" r="6" />
          <line v-if="stop.state === 'barred'" x1="9" y1="19" x2="19" y2="9" />
          <path v-if="stop.state === 'waiting'" d="M14 10v4l3 2" class="hand" />
          <line v-if="stop.state === 'passed'" x1="10" y1="14" x2="18" y2="14" />
        </svg>
        <span class="label">
          {{ stop.label }} <span v-if="noteOf(stop)" class="note">{{ noteOf(stop) }}</span>
        </span>
      </button>
    </li>
  </ol>
  <p v-if="here" class="here-now" aria-hidden="true">{{ here.label }} <span class="note">{{ noteOf(here) }}</span></p>
</template>

<style scoped>
.course {
  position: relative;
  display: flex;
  list-style: none;
  margin: 0;
  padding: 0 10px;
}
.course::before {
  content: '';
  position: absolute;
  left: 0;
  right: 0;
  top: 13px;
  border-top: 2px solid var(--ink);
}
.course::after {
  content: '';
  position: absolute;
  right: 0;
  top: 2px;
  width: 10px;
  height: 24px;
  background: var(--ink);
  clip-path: polygon(25% 0, 75% 0, 100% 100%, 0 100%);
}
li {
  position: relative;
  flex: 1;
  min-width: 0;
}
.stop {
  display: grid;
  justify-items: center;
  width: 100%;
  min-height: var(--hit);
  line-height: 1.1;
  text-align: center;
}
svg {
  position: relative;
}
circle {
  fill: var(--felt);
  stroke: var(--ink);
  stroke-width: 2;
}
.done circle {
  fill: var(--ink);
}
.here circle {
  stroke: var(--action);
  stroke-width: 6;
}
line {
  stroke: var(--ink);
  stroke-width: 2;
}
.here .label {
  color: var(--action);
  font-weight: 700;
}
.hand {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.waiting circle {
  stroke-dasharray: 3 2.2;
}
.passed .label {
  color: var(--quiet);
}
.note {
  margin-left: 3px;
  font-size: var(--type-note);
  font-weight: 400;
  color: var(--quiet);
}
.crowded .label {
  font-size: var(--type-note);
}
.crowded li:not(.here, .waiting) .note {
  display: none;
}
.here-now {
  display: none;
  margin: 0;
  padding: 0 10px;
  font-weight: 700;
  color: var(--action);
}
@media (max-width: 640px) {
  .label {
    display: none;
  }
  .here-now {
    display: block;
  }
}
</style>
