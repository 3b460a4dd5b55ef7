<script setup lang="ts">
/** A dialog that is a form in two columns: Enter sends it, what is refused stands at its foot, its acts stay in sight. */
import { focusFirstInDialog } from '@/shared/focus'
import { t } from '@/words/shared'

defineProps<{ title: string; act: string; isSending: boolean; message: string }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ send: [] }>()
</script>

<template>
  <v-dialog v-model="isOpen" @after-enter="focusFirstInDialog">
    <v-card>
      <form @submit.prevent="emit('send')">
        <v-card-title tag="h2">{{ title }}</v-card-title>
        <v-card-text class="fields">
          <slot />
          <p v-if="message" class="wide fault" role="alert">{{ message }}</p>
        </v-card-text>
        <v-card-actions class="actions">
          <v-btn @click="isOpen = false">{{ t('cancel') }}</v-btn>
          <v-btn type="submit" variant="flat" :loading="isSending">{{ act }}</v-btn>
        </v-card-actions>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px;
}
.wide,
:slotted(.wide) {
  grid-column: 1 / -1;
}
form {
  overflow-y: auto;
}
.actions {
  position: sticky;
  bottom: 0;
  z-index: 1;
  background: var(--sheet);
  padding: 12px 24px 20px;
  gap: 8px;
}
@media (max-width: 640px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
