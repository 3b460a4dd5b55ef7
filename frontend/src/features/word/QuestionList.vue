<script setup lang="ts">
/** What is to be decided, what bars a work first; one stands open at a time. */
import { nextTick, ref, watch } from 'vue'
import type { Decision } from '@/api'
import { focusChosen } from '@/shared/focus'
import QuestionPanel from './QuestionPanel.vue'

/** asked : the question that is to be decided now, empty for none. */
const props = defineProps<{ questions: Decision[]; asked: string; mayDecide: boolean }>()
const open = ref('')

/** What is to be decided now stands open by itself; the others wait until they are asked for. */
const first = () => props.asked
watch(
  () => `${props.asked} ${props.questions.map((one) => `${one.question}${one.decided?.id ?? ''}`).join()}`,
  () => {
    if (!props.questions.some((one) => one.question === open.value && one.decided === null)) open.value = first()
  },
  { immediate: true },
)

/** Open a question and put the focus on its answers; without a name, the first that is not decided. */
function decide(question?: string): void {
  open.value = question ?? (first() || (props.questions.find((one) => one.decided === null) ?? props.questions[0])?.question || '')
  void nextTick(() => focusChosen(() => document.querySelector('#questions')))
}
defineExpose({ decide })
</script>

<template>
  <div v-if="questions.length" id="questions" class="questions">
    <QuestionPanel
      v-for="one in questions"
      :key="one.question"
      :asked="one"
      :may-decide="mayDecide"
      :model-value="open === one.question"
      @update:model-value="open = $event ? one.question : ''"
    />
  </div>
</template>

<style scoped>
.questions {
  margin: 4px 0 12px;
}
</style>
