<script setup lang="ts">
/** The owner's word: to which works, who agreed, how, and up to which sum. The sum that was shown is sent along: one that changed is asked about. */
import { computed, watch } from 'vue'
import { answerOf, api, type VisitPlan } from '@/api'
import { useFormEntry } from '@/shared/entry'
import FormDialog from '@/shared/FormDialog.vue'
import { useLoaded } from '@/shared/loaded'
import SignaturePad from '@/shared/SignaturePad.vue'
import type { ApprovalForm } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string; plan: VisitPlan; owner: string; approve: (id: string, form: ApprovalForm, total: string) => Promise<void> }>()
const isOpen = defineModel<boolean>({ required: true })
const open = computed(() => props.plan.lines.filter((line) => line.state !== 'done'))
const wanted = (): string[] => open.value.filter((line) => line.state !== 'refused').map((line) => line.id)
const empty = (): ApprovalForm => ({ who: props.owner, how: 'in_person', up_to: '', words: '', signature: '', lines: wanted() })
const { draft: form, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'approval', of: () => props.ticket, empty })
watch(isOpen, (now) => {
  if (now) begin()
}, { immediate: true })
/** Works that are still on the plan: a draft may be older than it. */
const ticked = computed(() => open.value.map((line) => line.id).filter((id) => form.value.lines.includes(id)))
const { found, failure } = useLoaded(
  () => (isOpen.value ? `${props.plan.total} ${ticked.value.join(' ')}` : ''),
  async () => (isOpen.value ? answerOf(api.GET('/api/instruments/{ticket}/plan/sum', { params: { path: { ticket: props.ticket }, query: { line: ticked.value } } })) : null),
)
/** Of all works the plan itself says the sum, before the answer is here. */
const sum = computed(() => found.value ?? (ticked.value.join() === wanted().join() ? { total: props.plan.total, says: props.plan.variants.at(-1)?.usual.total ?? '' } : null))

async function send(): Promise<void> {
  await sendEntry(
    (id, typed) => props.approve(id, { ...typed, lines: ticked.value, signature: typed.how === 'signature' ? typed.signature : '' }, sum.value?.total ?? ''),
    () => (isOpen.value = false),
  )
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('the_owner_approves')" :act="t('record_approval')" :is-sending="isSending" :message="message || failure" @send="send" @cancel="clear">
    <fieldset class="wide works">
      <legend>{{ t('to_these_works') }}</legend>
      <label v-for="line in open" :key="line.id"><input v-model="form.lines" type="checkbox" :value="line.id" /><span>{{ line.label }}</span><span class="amount">{{ line.amount }}</span></label>
      <p role="status"><b v-if="sum">{{ t('it_comes_to', { total: sum.says }) }}</b> {{ t('what_is_not_ticked') }}</p>
    </fieldset>
    <v-text-field v-model="form.who" data-first :label="t('who_agreed')" maxlength="500" :error-messages="faults.who" />
    <v-select v-model="form.how" :label="t('how')" :items="Object.entries(plan.how).map(([value, title]) => ({ value, title }))" :error-messages="faults.how" />
    <v-text-field v-model="form.up_to" :label="t('up_to_if_it_is')" inputmode="decimal" :hint="t('beyond_it_the_work_stops')" persistent-hint :error-messages="faults.up_to" />
    <v-text-field v-model="form.words" :label="t('in_their_words')" maxlength="20000" />
    <div v-if="form.how === 'signature'" class="wide">
      <p>{{ t('the_owner_signs_here') }}</p>
      <SignaturePad v-model="form.signature" />
      <p v-if="faults.signature" role="alert">{{ faults.signature }}</p>
    </div>
  </FormDialog>
</template>

<style scoped>
.works {
  padding: 0;
  border: 0;
}
.works label {
  display: grid;
  grid-template-columns: auto 1fr auto;
  gap: var(--space-2);
  align-items: center;
  min-height: var(--hit);
  border-bottom: 1px solid var(--line);
}
.works input {
  width: 22px;
  height: 22px;
  accent-color: var(--action);
}
.works p {
  margin: var(--space-2) 0 0;
}
</style>
