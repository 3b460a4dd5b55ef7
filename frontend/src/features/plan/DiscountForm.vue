<script setup lang="ts">
/** So much off all works of this visit, with its reason. */
import { watch } from 'vue'
import { useFormEntry } from '@/shared/entry'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string; percent: string; says: string; give: (id: string, percent: string, reason: string) => Promise<void> }>()
const empty = () => ({ percent: props.percent, reason: '' })
const { draft, message, faults, isSending, begin, send } = useFormEntry({ kind: 'discount', of: () => props.ticket, empty })
watch([() => props.ticket, () => props.percent], begin, { immediate: true })
</script>

<template>
  <details :open="says !== '' || message !== ''">
    <summary>{{ says || t('discount') }}</summary>
    <form @submit.prevent="send((id, typed) => give(id, typed.percent, typed.reason))">
      <label>{{ t('percent') }} <input v-model="draft.percent" class="entry" inputmode="decimal" autocomplete="off" :aria-invalid="!!faults.percent" /></label>
      <label>{{ t('reason') }} <input v-model="draft.reason" class="entry" maxlength="500" /></label>
      <v-btn type="submit" size="small" :loading="isSending">{{ t('give') }}</v-btn>
    </form>
    <p v-if="message" role="alert">{{ message }}</p>
  </details>
</template>

<style scoped>
summary {
  min-height: var(--hit);
  padding-top: 10px;
}
form {
  display: grid;
  grid-template-columns: 70px 1fr auto;
  align-items: end;
  gap: var(--space-2);
}
label {
  display: grid;
}
</style>
