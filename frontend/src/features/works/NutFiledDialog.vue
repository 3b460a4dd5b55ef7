<script setup lang="ts">
/** What was filed at each slot of the nut: what was advised stands there, and is put right where it went otherwise. */
import { computed, watch } from 'vue'
import type { BenchSheet } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { focusFirstInDialog } from '@/shared/focus'
import { down } from '@/shared/format'
import { t } from '@/words/works'

const props = defineProps<{
  sheet: BenchSheet
  caution: string
  /** Throws Refused. */
  record: (filed: string[], id: string) => Promise<void>
}>()
const isOpen = defineModel<boolean>({ required: true })
const names = computed(() => props.sheet.instrument.string_names)
const advised = () => names.value.map((_, i) => {
  const amount = props.sheet.instruction.amounts.find((one) => one.name === 'file_first' && one.position === i)
  return amount ? down(amount.value, 2) : ''
})
const { draft, begin, send, clear } = useFormEntry({ kind: 'nut-filed', of: () => props.sheet.instrument.ticket, empty: () => ({ filed: advised() }) })
/** In the order in which the strings lie seen from the tailpiece, as on the card. */
const positions = computed(() => {
  const all = names.value.map((_, i) => i)
  return props.sheet.instrument.left_handed ? all.reverse() : all
})

watch(isOpen, (open) => {
  if (open) begin()
})
function done(): void {
  isOpen.value = false
  void send((id, { filed }) => props.record(names.value.map((_, i) => filed[i]?.trim() ?? ''), id))
}
function cancel(): void {
  clear()
  isOpen.value = false
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="560" @after-enter="focusFirstInDialog">
    <v-card>
      <v-card-title tag="h2">{{ t('what_was_filed') }}</v-card-title>
      <v-card-text>
        <form id="nut-filed" class="strings" data-first @submit.prevent="done">
          <label v-for="i in positions" :key="i">{{ names[i] }}<input v-model="draft.filed[i]" class="plain-input" inputmode="decimal" maxlength="20" autocomplete="off" /></label>
        </form>
        <p>{{ t('filed_at_each_slot') }}</p>
        <p v-if="caution" class="caution">{{ caution }}</p>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
        <v-btn variant="flat" type="submit" form="nut-filed">{{ t('save_what_was_filed') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.strings {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
.strings label {
  font-size: var(--type-target);
  font-weight: 700;
}
.strings input {
  display: block;
  width: 90px;
  font-size: var(--type-target);
}
p {
  margin: 12px 0 0;
}
.caution {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.actions {
  padding: 8px 24px 20px;
}
</style>
