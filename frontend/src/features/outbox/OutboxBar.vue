<script setup lang="ts">
/** The one place that says that the server is away, and what waits here, is held or was refused. */
import { computed, nextTick, ref, watch } from 'vue'
import { reach } from '@/api'
import { useOutbox, type Row } from '@/outbox'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import { newer, reload } from '@/shared/version'
import OutboxDialog from './OutboxDialog.vue'
import { t } from '@/words/outbox'

const outbox = useOutbox()
const atBench = useAtBench()
const isOpen = ref(false)

const nameOf = (row: Row) => row.by || (atBench.people.find((one) => one.id === row.person)?.name ?? 'somebody')
const names = computed(() => [...new Set(outbox.held.map(nameOf))].join(', '))
const says = computed(() => {
  const told: string[] = []
  const waiting = outbox.kept.length
  if (reach.isAway) {
    told.push(t('shown_is_what_was_last', { answer: reach.because || t('the_server_does_not_answer') }))
  }
  if (waiting && (reach.isAway || outbox.isStuck)) told.push(t('here_and_will_be_sent', { count: waiting }))
  if (!outbox.lasts && outbox.rows.length) told.push(t('this_browser_keeps_nothing_leave'))
  if (outbox.held.length) told.push(t('of_for_a_pin', { count: outbox.held.length, names: names.value }))
  if (outbox.refused.length) told.push(t('not_accepted', { count: outbox.refused.length }))
  if (newer.value === 'version') told.push(t('a_newer_version_is_here'))
  if (newer.value === 'page') told.push(t('this_page_is_of_an'))
  return told.join(' ')
})
watch(says, (now, before) => {
  // What is drawn to fit the window is drawn again.
  if (!now !== !before) void nextTick(() => window.dispatchEvent(new Event('resize')))
})

useCommands([{ letter: '.', general: true, words: t('entries_not_sent'), run: () => (isOpen.value = true), possible: () => outbox.rows.length > 0 }])
</script>

<template>
  <div v-if="says" class="bar only-screen" role="status">
    <span>{{ says }}</span>
    <button v-if="outbox.rows.length" type="button" class="plain-button" @click="isOpen = true">{{ t('show') }}</button>
    <button v-if="newer" type="button" class="plain-button" @click="reload">{{ t('reload') }}</button>
  </div>
  <OutboxDialog v-model="isOpen" />
</template>

<style scoped>
.bar {
  position: sticky;
  top: 3px;
  z-index: 6;
  display: flex;
  align-items: center;
  gap: 14px;
  margin: 2px 16px 0;
  padding: 0 14px;
  min-height: 36px;
  font-weight: 700;
  background: var(--sheet);
  border: 2px solid var(--ink);
  border-radius: var(--corner);
}
button {
  min-height: 36px;
  min-width: var(--hit);
  text-decoration: underline;
}
</style>
