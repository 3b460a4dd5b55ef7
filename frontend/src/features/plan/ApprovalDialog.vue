<script setup lang="ts">
/** The owner's word: who agreed, how, and up to which sum. What the plan came to is sent along: a sum that changed is asked about. */
import { watch } from 'vue'
import type { VisitPlan } from '@/api'
import { useFormEntry } from '@/shared/entry'
import FormDialog from '@/shared/FormDialog.vue'
import SignaturePad from '@/shared/SignaturePad.vue'
import type { ApprovalForm } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string; plan: VisitPlan; owner: string; approve: (id: string, form: ApprovalForm) => Promise<void> }>()
const isOpen = defineModel<boolean>({ required: true })
const empty = (): ApprovalForm => ({ who: props.owner, how: 'in_person', up_to: '', words: '', signature: '' })
const { draft: form, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'approval', of: () => props.ticket, empty })
watch(isOpen, (open) => {
  if (open) begin()
}, { immediate: true })

async function send(): Promise<void> {
  await sendEntry(
    (id, typed) => props.approve(id, { ...typed, signature: typed.how === 'signature' ? typed.signature : '' }),
    () => (isOpen.value = false),
  )
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('the_owner_approves')" :act="t('record_approval')" :is-sending="isSending" :message="message" @send="send" @cancel="clear">
    <p class="wide">{{ t('the_plan_comes_to_works', { total: plan.variants.at(-1)?.usual.total, works: plan.lines.length, range: plan.total_says }) }}</p>
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
