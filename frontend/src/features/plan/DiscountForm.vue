<script setup lang="ts">
/** So much off all works of this visit, with its reason. */
import { ref, watch } from 'vue'
import { t } from '@/words/plan'

const props = defineProps<{ percent: string; says: string; fault: string }>()
const emit = defineEmits<{ give: [percent: string, reason: string] }>()
const typed = ref(props.percent)
const reason = ref('')
watch(() => props.percent, (now) => (typed.value = now))
</script>

<template>
  <details :open="says !== '' || fault !== ''">
    <summary>{{ says || t('discount') }}</summary>
    <form @submit.prevent="emit('give', typed, reason)">
      <label>{{ t('percent') }} <input v-model="typed" class="entry" inputmode="decimal" autocomplete="off" :aria-invalid="fault !== ''" /></label>
      <label>{{ t('reason') }} <input v-model="reason" class="entry" maxlength="500" /></label>
      <v-btn type="submit" size="small">{{ t('give') }}</v-btn>
    </form>
    <p v-if="fault" role="alert">{{ fault }}</p>
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
