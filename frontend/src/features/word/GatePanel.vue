<script setup lang="ts">
/** What bars the crown: the answers side by side, what each takes, and the decision with its reason. */
import { computed, nextTick, ref, watch } from 'vue'
import { Refused, type Gate } from '@/api'
import { useBench } from '@/features/bench'

const props = defineProps<{ gate: Gate; mayDecide: boolean }>()
const bench = useBench()

const chosen = ref('')
const reason = ref('')
const fault = ref('')
const isSending = ref(false)
const reasonField = ref<HTMLInputElement | null>(null)
const outcome = computed(() => props.gate.outcomes.find((row) => row.outcome === chosen.value) ?? null)

watch(
  () => props.gate.decided?.id,
  () => {
    chosen.value = props.gate.decided?.outcome ?? props.gate.outcomes.find((row) => row.advised)?.outcome ?? ''
    reason.value = ''
    fault.value = ''
  },
  { immediate: true },
)

async function decide(): Promise<void> {
  if (isSending.value || chosen.value === '') return
  isSending.value = true
  fault.value = ''
  try {
    await bench.decide(props.gate.question, chosen.value, reason.value)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
    void nextTick(() => reasonField.value?.focus())
  } finally {
    isSending.value = false
  }
}
/** Enter on an answer goes on to the reason, and from there decides. */
function toReason(event: KeyboardEvent): void {
  event.preventDefault()
  reasonField.value?.focus()
}
</script>

<template>
  <form id="gate" class="gate" :aria-label="gate.title" @submit.prevent="decide">
    <h2>{{ gate.title }}</h2>
    <p v-if="gate.decided" class="decided">
      <b>{{ gate.decided.label }}</b>, {{ gate.decided.by }}<template v-if="gate.decided.reason">: “{{ gate.decided.reason }}”</template>
    </p>
    <p v-else>{{ gate.says.charAt(0).toUpperCase() }}{{ gate.says.slice(1) }}.</p>
    <template v-if="mayDecide">
      <fieldset>
        <legend class="only-read">{{ gate.title }}</legend>
        <label v-for="row in gate.outcomes" :key="row.outcome" class="answer" :class="{ chosen: row.outcome === chosen }">
          <input v-model="chosen" type="radio" name="outcome" :value="row.outcome" @keydown.enter="toReason" />
          <span>
            <b>{{ row.label }}</b><span v-if="row.advised" class="advised">the readings speak for it</span>
            <span v-if="row.figures" class="figures">{{ row.figures }}</span>
            <span v-if="row.outcome === chosen" class="says">{{ row.says }}</span>
          </span>
        </label>
      </fieldset>
      <label class="reason">
        <span>{{ outcome?.needs_reason ? 'why, kept and printed' : 'why, if there is more to say' }}</span>
        <input ref="reasonField" v-model="reason" maxlength="500" autocomplete="off" />
      </label>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <v-btn type="submit" variant="flat" :loading="isSending" :disabled="chosen === ''">{{ gate.decided ? 'Decide anew' : 'Decide' }}</v-btn>
    </template>
    <p v-else>A luthier decides it.</p>
  </form>
</template>

<style scoped>
.gate {
  margin: 4px 0 14px;
  padding: 10px 14px 14px;
  border: 2px solid var(--ink);
  border-radius: 4px;
}
h2 {
  font-size: 17px;
  margin: 0 0 4px;
}
p {
  margin: 0 0 6px;
}
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.answer {
  display: flex;
  gap: 9px;
  min-height: 44px;
  padding: 9px 0 6px;
  border-top: 1px solid var(--hairline);
  line-height: 1.25;
  cursor: pointer;
}
.answer input {
  flex: none;
  width: 18px;
  height: 18px;
  margin: 1px 0 0;
  accent-color: var(--action);
}
.answer b {
  font-weight: 400;
}
.answer.chosen b {
  font-weight: 700;
}
.advised {
  display: table;
  margin: 2px 0;
  padding: 0 6px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  white-space: nowrap;
}
.figures,
.says {
  display: block;
}
.says {
  color: var(--quiet);
}
.reason {
  display: block;
  margin-bottom: 10px;
}
.reason span {
  display: block;
}
.reason input {
  width: 100%;
  min-height: 44px;
  padding: 2px 8px;
  border: 1px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.fault {
  color: var(--error);
  font-weight: 700;
}
</style>
