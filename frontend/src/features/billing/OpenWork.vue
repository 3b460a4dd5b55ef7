<script setup lang="ts">
/** A work that was done at the bench and that nobody has priced: its minutes put it on the plan. */
import { watch } from 'vue'
import { useFormEntry } from '@/shared/entry'
import { t } from '@/words/billing'

const props = defineProps<{ id: string; label: string; price: (id: string, work: string, minutes: string) => Promise<void> }>()
const { draft, message, isSending, begin, send } = useFormEntry({ kind: 'price', of: () => props.id, empty: () => ({ minutes: '' }) })
watch(() => props.id, begin, { immediate: true })
</script>

<template>
  <form @submit.prevent="send((entry, typed) => price(entry, id, typed.minutes))">
    <span class="label">{{ label }}</span>
    <v-text-field v-model="draft.minutes" :label="t('minutes')" :aria-label="t('minutes_of', { work: label })" inputmode="decimal" autocomplete="off" :error-messages="message" />
    <v-btn type="submit" size="small" :loading="isSending">{{ t('put_on_plan') }}</v-btn>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr minmax(90px, 0.6fr) auto;
  gap: var(--space-2);
  align-items: center;
}
</style>
