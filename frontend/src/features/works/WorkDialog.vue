<script setup lang="ts">
/** A work that was done away from the sheet's own buttons: written down, what it touches is measured again. */
import { computed, watch } from 'vue'
import type { Choices } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { focusChosenInDialog } from '@/shared/focus'
import { t } from '@/words/works'

const props = defineProps<{
  ticket: string
  works: Choices['works']
  hasWheels: boolean
  /** Throws Refused. */
  record: (work: string, words: string, id: string) => Promise<void>
}>()
const isOpen = defineModel<boolean>({ required: true })
const { draft, begin, send, clear } = useFormEntry({ kind: 'work', of: () => props.ticket, empty: () => ({ chosen: '', words: '' }) })
const OTHER = 'other_work'
/** By the part that each is done to, and only what this instrument has. */
const parts = computed(() => {
  const found = new Map<string, Choices['works']>()
  for (const work of props.works) {
    if (work.key === 'adjusters_turned' && !props.hasWheels) continue
    found.set(work.part, [...(found.get(work.part) ?? []), work])
  }
  return [...found]
})

const caution = computed(() => props.works.find((work) => work.key === draft.value.chosen)?.caution ?? '')

watch(isOpen, (open) => {
  if (open) begin()
})
function isReady(): boolean {
  return draft.value.chosen !== '' && (draft.value.chosen !== OTHER || draft.value.words.trim() !== '')
}
function done(): void {
  if (!isReady()) return
  // What is measured next does not wait for the answer; what is refused is said on the page, and stands here again.
  isOpen.value = false
  void send((id, { chosen, words }) => props.record(chosen, words.trim(), id))
}
/** What was typed is not wanted; Escape only shuts the form. */
function cancel(): void {
  clear()
  isOpen.value = false
}
</script>

<template>
  <v-dialog v-model="isOpen" scrollable max-width="900" @after-enter="focusChosenInDialog">
    <v-card>
      <v-card-title tag="h2">{{ t('record_work') }}</v-card-title>
      <v-card-text>
        <form id="work-done" @submit.prevent="done">
          <v-radio-group v-model="draft.chosen" hide-details class="works" @keydown.enter.prevent="done">
            <div v-for="[part, own] in parts" :key="part" class="part">
              <h3>{{ part }}</h3>
              <v-radio v-for="work in own" :key="work.key" :value="work.key" :label="work.label" />
            </div>
          </v-radio-group>
          <label v-if="draft.chosen === OTHER" class="words">{{ t('what_was_done') }}<input v-model="draft.words" class="plain-input" maxlength="400" autocomplete="off" /></label>
          <p v-if="caution" class="caution" role="status">{{ caution }}</p>
          <p>{{ t('readings_that_the_work_touches') }}</p>
        </form>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
        <v-btn variant="flat" type="submit" form="work-done" :disabled="!isReady()">{{ t('save') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
p {
  margin: 8px 0 0;
}
.caution {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.words {
  display: block;
}
.works :deep(.v-selection-control-group) {
  display: block;
  columns: 3 220px;
}
.part {
  break-inside: avoid;
  margin-bottom: 8px;
}
h3 {
  margin: 0;
  font-size: var(--type-text);
}
/* Each control names the grid area "control" of its own field: in this grid they would lie on one another. */
.works :deep(.v-selection-control) {
  grid-area: auto;
}
.actions {
  padding: 8px 24px 20px;
}
</style>
