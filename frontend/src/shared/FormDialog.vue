<script setup lang="ts">
/**
 * A dialog that is a form in two columns: Enter sends it, its acts and what is refused stay in sight at its foot.
 * Where a field is refused, the focus goes there, which may be far up in a long form.
 */
import { ref, useTemplateRef, watch } from 'vue'
import { focusFaultInDialog, focusFirstInDialog } from '@/shared/focus'
import { t } from '@/words/shared'

/** leave : what the way out is called where there is nothing to cancel. */
const props = defineProps<{ title: string; act: string; isSending: boolean; message: string; leave?: string }>()
const isOpen = defineModel<boolean>({ required: true })
/** cancel : what was typed is not wanted; Escape only shuts the form, which is as it was when it opens again. */
const emit = defineEmits<{ send: []; cancel: [] }>()
const form = useTemplateRef('form')
/** What was refused and stands at no field. */
const unsaid = ref('')
watch(
  () => [props.message, props.isSending],
  () => {
    const atFields = [...(form.value?.querySelectorAll('.fields .v-messages__message') ?? [])].map((said) => said.textContent ?? '')
    unsaid.value = atFields.filter(Boolean).reduce((rest, said) => rest.replaceAll(said, ''), props.message).trim()
  },
  { flush: 'post' },
)
function cancel(): void {
  emit('cancel')
  isOpen.value = false
}
watch(
  () => props.isSending,
  (sends) => {
    if (!sends && isOpen.value) focusFaultInDialog()
  },
)
</script>

<template>
  <v-dialog v-model="isOpen" @after-enter="focusFirstInDialog">
    <v-card>
      <form ref="form" @submit.prevent="emit('send')">
        <v-card-title tag="h2">{{ title }}</v-card-title>
        <v-card-text class="fields">
          <slot />
        </v-card-text>
        <div class="foot">
          <p v-if="unsaid" class="fault" role="alert">{{ unsaid }}</p>
          <v-card-actions class="actions">
            <v-btn @click="cancel">{{ leave || t('cancel') }}</v-btn>
            <v-btn type="submit" variant="flat" :loading="isSending">{{ act }}</v-btn>
          </v-card-actions>
        </div>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  align-items: start;
  gap: 14px;
}
:slotted(.wide) {
  grid-column: 1 / -1;
}
form {
  overflow-y: auto;
  /* What has the focus does not lie under the foot. */
  scroll-padding-bottom: 130px;
}
.foot {
  position: sticky;
  bottom: 0;
  z-index: 1;
  background: var(--sheet);
}
.foot .fault {
  margin: 0;
  padding: 10px 16px 0;
}
.actions {
  padding: 12px 24px 20px;
  gap: 8px;
}
@media (max-width: 640px) {
  .fields {
    grid-template-columns: 1fr;
  }
}
</style>
