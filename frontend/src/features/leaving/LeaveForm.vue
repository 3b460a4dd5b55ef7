<script setup lang="ts">
/** What stays open and why, when it should come again, who takes it, and who signs. */
import { computed } from 'vue'
import type { Checklist } from '@/api'
import SignaturePad from '@/shared/SignaturePad.vue'
import type { Leave } from './useLeaving'
import { t } from '@/words/leaving'

const props = defineProps<{ list: Checklist; faults: Record<string, string> }>()
const emit = defineEmits<{ toChecks: [] }>()
const leave = defineModel<Leave>({ required: true })
const open = computed(() => props.list.points.filter((point) => point.is_open))
/** What nobody has looked at is looked at first; each of the rest has its own reason. */
const unchecked = computed(() => open.value.filter((point) => point.state === 'unchecked'))
const found = computed(() => open.value.filter((point) => point.state !== 'unchecked'))
const set = (part: Partial<Leave>) => (leave.value = { ...leave.value, ...part })
const because = (key: string, words: string) => set({ left_open: { ...leave.value.left_open, [key]: words } })
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section v-if="open.length" :aria-label="t('what_stays_open')">
    <h2>{{ t('stays_open') }} · {{ open.length }}</h2>
    <label class="all">{{ t('why_it_leaves_so_where') }}
      <input class="entry" maxlength="500" :value="leave.left_open['']" @input="because('', text($event))" />
    </label>
    <ul class="open">
      <li v-if="unchecked.length">
        <b>{{ t('check_at_pitch_other_not', { count: unchecked.length }) }}</b>
        <button type="button" class="plain-button" @click="emit('toChecks')">{{ t('look_at_them_now') }}</button>
      </li>
      <li v-for="point in found" :key="point.key">
        <b>{{ point.label }}</b>
        <span v-if="point.means">{{ point.means }}</span>
        <input class="entry" maxlength="500" :placeholder="leave.left_open[''] || t('why')" :value="leave.left_open[point.key]" :aria-label="t('why_it_stays_open', { label: point.label })" @input="because(point.key, text($event))" />
      </li>
    </ul>
    <p v-if="faults.left_open" class="fault" role="alert">{{ faults.left_open }}</p>
  </section>
  <p v-else>{{ t('nothing_is_open') }}</p>
  <section :aria-label="t('next_check_2')">
    <h2>{{ t('next_check_3') }}</h2>
    <div class="two">
      <input class="entry" type="date" :value="leave.next_check" :aria-label="t('day_of_the_next_check')" @input="set({ next_check: text($event) })" />
      <v-btn size="small" :disabled="!leave.next_check" @click="set({ next_check: '' })">{{ t('none') }}</v-btn>
    </div>
    <input class="entry" maxlength="500" :value="leave.next_check_why" :aria-label="t('what_is_looked_at_then')" @input="set({ next_check_why: text($event) })" />
    <p v-if="faults.next_check" class="fault" role="alert">{{ faults.next_check }}</p>
  </section>
  <section :aria-label="t('who_takes_it')">
    <h2>{{ t('taken_by_2') }}</h2>
    <input class="entry" maxlength="500" :value="leave.received_by" :placeholder="list.owner" :aria-label="t('who_takes_it')" @input="set({ received_by: text($event) })" />
    <SignaturePad :model-value="leave.signature" @update:model-value="set({ signature: $event })" />
  </section>
</template>

<style scoped>
h2 {
  margin: var(--space-4) 0 4px;
  font-size: var(--type-text);
}
section:first-child h2 {
  margin-top: 0;
}
.open {
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}
.open li {
  padding: 6px 0;
  border-top: 1px solid var(--hairline);
}
.open .plain-button {
  display: block;
  min-height: var(--hit);
  color: var(--action);
  font-weight: 700;
}
.open span {
  display: block;
  font-size: var(--type-note);
  line-height: 1.35;
}
.entry {
  font-weight: 400;
}
.two {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-bottom: 6px;
}
</style>
