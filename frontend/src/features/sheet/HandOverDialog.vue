<script setup lang="ts">
/** Asked before an instrument leaves: what is still open on it comes first, and what nobody has looked at. */
import { computed } from 'vue'
import type { BenchSheet } from '@/api'
import { StateMark } from '@/features/map'
import { until } from '@/shared/format'
import { t } from '@/words/sheet'

const props = defineProps<{ sheet: BenchSheet }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ handOver: [] }>()

const ticket = computed(() => props.sheet.instrument.ticket)
const open = computed(() => props.sheet.parts.filter((part) => part.is_open))
const waiting = computed(() => props.sheet.course.filter((stop) => stop.state === 'waiting'))
const unread = computed(() => props.sheet.parts.filter((part) => part.state === 'unknown').map((part) => part.label).join(', '))
function send(): void {
  isOpen.value = false
  emit('handOver')
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="560">
    <v-card>
      <v-card-title tag="h2">{{ t('hand_over', { ticket }) }}</v-card-title>
      <v-card-text>
        <template v-if="open.length">
          <p><b>{{ t('still_open') }}</b></p>
          <ul class="open">
            <li v-for="part in open" :key="part.part">
              <svg viewBox="-12 -12 24 24" width="24" height="24" aria-hidden="true"><StateMark :state="part.state" /></svg>
              <b>{{ part.label }}</b>
              <span>{{ part.says }}</span>
            </li>
          </ul>
        </template>
        <p v-for="stop in waiting" :key="stop.key">{{ t('still_waiting', { step: stop.label, until: stop.until ? until(stop.until) : '?' }) }}</p>
        <p v-if="unread">{{ t('not_looked_at', { parts: unread }) }}</p>
        <p v-if="!open.length && !unread">{{ t('every_part_is_in_order') }}</p>
        <p>{{ t('it_leaves_the_list_of') }}</p>
      </v-card-text>
      <v-card-actions class="acts">
        <v-btn :autofocus="open.length > 0" @click="isOpen = false">{{ t('cancel') }}</v-btn>
        <v-btn variant="flat" :autofocus="open.length === 0" @click="send">{{ open.length ? t('hand_over_as_it_is') : t('hand_over_2') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
p {
  margin: 0 0 var(--space-3);
}
.open {
  margin: 0 0 var(--space-3);
  padding: 0;
  list-style: none;
}
.open li {
  display: grid;
  grid-template-columns: 1.75rem 6rem 1fr;
  align-items: center;
  min-height: var(--row);
  border-top: 1px solid var(--hairline);
}
.acts {
  justify-content: space-between;
  padding: 8px 24px 20px;
}
</style>
