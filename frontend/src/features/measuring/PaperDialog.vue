<script setup lang="ts">
/** A card that was written by hand is entered: when it was written decides which works came before it. */
import { computed, nextTick, ref, watch } from 'vue'
import FormDialog from '@/shared/FormDialog.vue'
import { useAtBench } from '@/shared/person'

const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ chosen: [at: string] }>()
const atBench = useAtBench()
const at = ref('')
const fault = ref('')
const field = ref<{ focus: () => void } | null>(null)

/** Of the clock on the wall, as the field wants it. */
function wall(when: Date): string {
  return new Date(when.getTime() - when.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}
const latest = computed(() => (isOpen.value ? wall(new Date()) : ''))
watch(isOpen, (open) => {
  if (!open) return
  at.value = latest.value
  fault.value = ''
  void nextTick(() => field.value?.focus())
})
function send(): void {
  if (!at.value) fault.value = 'Say the day and the hour that stand on the card.'
  else if (at.value > wall(new Date())) fault.value = 'That time is still to come: say when the card was written.'
  else {
    isOpen.value = false
    emit('chosen', at.value)
  }
}
</script>

<template>
  <FormDialog v-model="isOpen" title="Enter a card written by hand" act="Enter it" :is-sending="false" :message="fault" @send="send">
    <v-text-field ref="field" v-model="at" type="datetime-local" :max="latest" label="Written on" class="wide" />
    <p class="wide">
      Each reading goes to where that time puts it among the works, so nothing newer is overwritten. They are kept as
      taken by {{ atBench.person }}: whoever measured takes the bench first.
    </p>
  </FormDialog>
</template>
