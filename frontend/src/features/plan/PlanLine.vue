<script setup lang="ts">
/** One planned work: what it comes to and why; opened, its steps with their minutes, its parts, and its acts. */
import { computed, ref } from 'vue'
import type { Family, PlannedWork } from '@/api'
import { ago } from '@/shared/format'
import LineMark from './LineMark.vue'
import PartPicker from './PartPicker.vue'
import type { Grade } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{
  line: PlannedWork
  family: Family
  grades: { grade: Grade; label: string }[]
  isOpen: boolean
  mayAct: boolean
  isFirst: boolean
  isLast: boolean
  fault: string
}>()
const emit = defineEmits<{
  toggle: []
  drop: []
  up: []
  down: []
  grade: [grade: Grade]
  use: [item: string, count: string]
  putBack: [part: string]
  begin: []
  pause: []
  finish: [minutes: string]
}>()
const minutes = ref('')
const took = computed(() => minutes.value || props.line.minutes_so_far)
const STATES: Record<string, string> = { planned: t('planned'), running: t('being_worked_on'), paused: t('stopped_for_now'), refused: t('left_out_by_owner'), done: t('done') }
const stands = computed(() => {
  const { state, by, since, took: spent } = props.line
  if (state === 'done') return t('done_by_in', { by, when: since ? ago(since) : '', took: spent })
  if (state === 'running') return t('is_at_it_since', { by, when: since ? ago(since) : '' })
  return STATES[state] ?? ''
})
</script>

<template>
  <li class="line" :class="[line.state, { open: isOpen }]">
    <button type="button" class="plain-button row" :aria-expanded="isOpen" @click="emit('toggle')">
      <LineMark :state="line.state" :stopped="line.stopped !== ''" />
      <span class="what"><b>{{ line.label }}</b><span class="because">{{ line.because }}</span></span>
      <span class="time">{{ line.took || line.minutes }}</span>
      <span class="amount">{{ line.amount }}<span v-if="line.state === 'refused'" class="not">{{ t('left_out_by_owner') }}</span><span v-else-if="!line.approved" class="not">{{ t('not_approved') }}</span></span>
    </button>
    <div v-if="isOpen" class="inside">
      <p v-if="line.why" class="why">{{ line.why }}</p>
      <p>{{ stands }}<template v-if="line.stopped && line.state !== 'done'">. <b>{{ line.stopped }}</b></template></p>
      <table>
        <thead><tr><th>{{ t('what_it_takes') }}</th><th class="right">{{ t('minutes') }}</th></tr></thead>
        <tbody>
          <tr v-for="step in line.steps" :key="step.label" :class="{ left: step.left_out }">
            <td>{{ step.label }}<span v-if="step.why" class="because">{{ step.why }}</span><span v-if="step.left_out" class="because">{{ t('left_out') }}</span></td>
            <td class="right">{{ step.minutes }}</td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">{{ t('an_hour', { rate: line.rate }) }}<template v-if="line.own_minutes"> · {{ line.own_minutes }}</template></p>
      <p v-for="note in line.notes" :key="note" class="quiet">{{ note }}</p>
      <p v-if="line.risk"><b>{{ t('it_may_grow') }}</b> {{ line.risk }}<template v-if="line.grows">; {{ line.grows }}</template>.</p>
      <p v-if="line.caution" class="caution">{{ line.caution }}</p>
      <p v-if="line.stale" class="quiet">{{ line.stale }}</p>
      <ul v-if="line.parts.length" class="parts">
        <li v-for="part in line.parts" :key="part.id">
          {{ part.says }}
          <v-btn v-if="mayAct && line.state !== 'done'" size="small" @click="emit('putBack', part.id)">{{ t('put_back') }}</v-btn>
        </li>
      </ul>
      <template v-if="mayAct">
        <PartPicker v-for="want in line.wants" :key="want.kind" :kind="want.kind" :label="want.label" :family="family" @use="(item, count) => emit('use', item, count)" />
      </template>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <div v-if="mayAct && line.state !== 'done'" class="acts">
        <label class="grade">{{ t('counts_in') }}
          <select class="entry" :value="line.grade" @change="emit('grade', ($event.target as HTMLSelectElement).value as Grade)">
            <option v-for="one in grades" :key="one.grade" :value="one.grade">{{ one.label }}</option>
          </select>
        </label>
        <v-btn size="small" :disabled="isFirst" @click="emit('up')">{{ t('earlier') }}</v-btn>
        <v-btn size="small" :disabled="isLast" @click="emit('down')">{{ t('later') }}</v-btn>
        <v-btn v-if="line.state !== 'running'" size="small" @click="emit('drop')">{{ t('take_off_the_plan') }}</v-btn>
      </div>
      <form v-if="mayAct && line.state !== 'done'" class="acts" @submit.prevent="emit('finish', took)">
        <v-btn v-if="line.state === 'running'" @click="emit('pause')">{{ t('stop_for_now') }}</v-btn>
        <v-btn v-else :disabled="line.stopped !== ''" @click="emit('begin')">{{ line.state === 'paused' ? t('go_on') : t('begin') }}</v-btn>
        <label class="took">{{ t('minutes_that_it_took') }} <input v-model="minutes" class="entry" inputmode="decimal" autocomplete="off" :placeholder="line.minutes_so_far" /></label>
        <v-btn type="submit" variant="flat" :disabled="line.stopped !== '' || !took">{{ t('done_2') }}</v-btn>
      </form>
    </div>
  </li>
</template>

<style scoped>
.caution {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.line {
  border-top: 1px solid var(--hairline);
}
.row {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto minmax(110px, auto);
  align-items: center;
  gap: 0 var(--space-3);
  width: 100%;
  min-height: 52px;
  padding: 4px 0;
  text-align: left;
}
.what b {
  display: block;
  font-size: var(--type-label);
}
.because {
  display: block;
  font-size: var(--type-note);
  color: var(--quiet);
}
.time {
  color: var(--quiet);
  white-space: nowrap;
}
.amount {
  font-size: var(--type-label);
  font-weight: 700;
  text-align: right;
}
.not {
  display: block;
  font-size: var(--type-note);
  font-weight: 400;
}
.done .what b {
  font-weight: 400;
}
.open {
  background: var(--note);
  box-shadow: inset 4px 0 0 var(--action);
  padding: 0 var(--space-2) 0 var(--space-3);
}
.inside {
  display: grid;
  gap: var(--space-2);
  padding: 0 0 var(--space-3) 28px;
}
.inside p {
  margin: 0;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-weight: 400;
  color: var(--quiet);
  text-align: left;
}
td {
  padding: 4px 0;
  border-top: 1px solid var(--hairline);
  vertical-align: top;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.left td {
  color: var(--quiet);
}
.quiet {
  color: var(--quiet);
}
.parts {
  margin: 0;
  padding: 0;
  list-style: none;
}
.parts li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  min-height: var(--row);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--space-2);
}
.grade {
  flex: 1 1 180px;
  display: grid;
}
.took {
  display: grid;
  flex: 1;
}
@media (max-width: 640px) {
  .row {
    grid-template-columns: 28px minmax(0, 1fr) auto;
  }
  .time {
    display: none;
  }
  .inside {
    padding-left: 0;
  }
}
</style>
