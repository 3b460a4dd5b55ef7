<script setup lang="ts">
/** A card that was written by hand is entered: when it was written decides which works came before it. */
import { computed, nextTick, ref, watch } from 'vue'
import FormDialog from '@/shared/FormDialog.vue'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/measuring'

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
  if (!at.value) fault.value = t('say_the_day_and_the')
  else if (at.value > wall(new Date())) fault.value = t('that_time_is_still_to')
  else {
    isOpen.value = false
    emit('chosen', at.value)
  }
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('enter_a_card_written_by')" :act="t('enter_card')" :is-sending="false" :message="fault" @send="send">
    <v-text-field ref="field" v-model="at" type="datetime-local" :max="latest" :label="t('written_on')" class="wide" />
    <p class="wide">
      {{ t('each_reading_goes_to_where', { person: atBench.person }) }}
    </p>
  </FormDialog>
</template>
