<script setup lang="ts">
/** What the owner was told, billed and has paid: documents with their numbers, payments, and what is open. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { BillingView } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { useFormEntry } from '@/shared/entry'
import FormDialog from '@/shared/FormDialog.vue'
import { dayAndYear } from '@/shared/format'
import { usePageCommands } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import OpenWork from './OpenWork.vue'
import PaymentForm from './PaymentForm.vue'
import { useBilling } from './useBilling'
import { t } from '@/words/billing'

type Issued = BillingView['documents'][number]
const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const atBench = useAtBench()
const { billing, failure, isSending, takeBack, issue, cancel, pay, price } = useBilling(() => props.ticket)
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })
const mayBill = computed(() => atBench.may('bill'))

const issueOpen = ref(false)
const kind = ref<'estimate' | 'invoice'>('invoice')
const issuing = useFormEntry({ kind: 'document', of: () => `${props.ticket} ${kind.value}`, empty: () => ({}) })
function askToIssue(what: 'estimate' | 'invoice'): void {
  kind.value = what
  issuing.begin()
  issueOpen.value = true
}
async function send(): Promise<void> {
  const total = kind.value === 'invoice' ? billing.value?.total : billing.value?.estimate_total
  await issuing.send((id) => issue(id, kind.value, total ?? ''), () => (issueOpen.value = false))
}

const cancelOpen = ref(false)
const cancelled = ref<Issued | null>(null)
const cancelling = useFormEntry({ kind: 'cancel', of: () => cancelled.value?.id ?? '', empty: () => ({ reason: '' }) })
const reason = cancelling.draft
function askToCancel(one: Issued): void {
  cancelled.value = one
  cancelling.begin()
  cancelOpen.value = true
}
async function sendCancel(): Promise<void> {
  await cancelling.send((id, typed) => cancel(id, cancelled.value?.id ?? '', typed.reason), () => (cancelOpen.value = false))
}

const toPlan = () => void router.push({ name: 'plan', params: { ticket: props.ticket } })
usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: '-', words: t('plan_letter'), run: toPlan },
  { letter: 'a', own: true, words: t('issue_invoice_letter'), run: () => askToIssue('invoice'), possible: () => mayBill.value && !!billing.value?.total },
  { letter: 't', own: true, words: t('record_payment_letter'), run: () => document.getElementById('payment-amount')?.focus(), possible: () => mayBill.value && billing.value !== null },
])
</script>

<template>
  <p v-if="failure && !billing" class="absent" role="alert">{{ failure }}</p>
  <InstrumentFrame v-else-if="billing && bench.sheet" :ticket="ticket" page="billing" :title="t('title')" :label="t('title')">
    <template #head><b role="status">{{ billing.balance }}</b></template>
    <div class="body">
      <h2>{{ t('documents') }}</h2>
      <p v-if="!billing.documents.length">{{ t('none_issued') }}</p>
      <ol v-else class="documents">
        <li v-for="one in billing.documents" :key="one.id">
          <router-link :to="{ name: 'document', params: { ticket, document: one.id } }" :aria-label="t('open_document', { code: one.code })"><b>{{ one.title }} {{ one.code }}</b></router-link>
          <span>{{ dayAndYear(one.issued_on) }}</span>
          <b class="figure">{{ one.total }}</b>
          <span class="state">{{ one.state || one.due }}</span>
          <v-btn v-if="one.may_cancel && mayBill" size="small" :aria-label="t('cancel_it', { code: one.code })" @click="askToCancel(one)">{{ t('cancel') }}</v-btn>
        </li>
      </ol>
      <p v-if="billing.stopped && !billing.documents.length" class="stopped">{{ billing.stopped }}</p>
      <p v-if="billing.stays_off">{{ billing.stays_off }}</p>
      <template v-if="billing.works.length && mayBill">
        <h2>{{ t('not_priced') }}</h2>
        <OpenWork v-for="work in billing.works" :id="work.id" :key="work.id" :label="work.label" :price="price" />
      </template>
      <p class="more"><v-btn v-if="billing.estimate_total && mayBill" size="small" @click="askToIssue('estimate')">{{ t('issue_estimate') }}</v-btn> <router-link :to="{ name: 'plan', params: { ticket } }">{{ t('to_plan') }}</router-link></p>
    </div>
    <template #todo>
      <h2>{{ t('payments') }}</h2>
      <p v-if="failure" role="alert">{{ failure }}</p>
      <p v-if="!billing.payments.length">{{ t('no_payments') }}</p>
      <ul v-else class="payments">
        <li v-for="one in billing.payments" :key="one.id"><span>{{ one.says }}, {{ t('by', { by: one.by }) }}</span><v-btn v-if="mayBill" size="small" :aria-label="t('undo_payment', { says: one.says })" @click="takeBack(one.id)">{{ t('undo') }}</v-btn></li>
      </ul>
      <PaymentForm v-if="mayBill" :billing="billing" :pay="pay" />
    </template>
    <template v-if="billing.total && mayBill" #main>
      <v-btn variant="flat" block class="main" :loading="isSending" @click="askToIssue('invoice')">{{ t('issue_invoice', { total: billing.to_invoice }) }}</v-btn>
    </template>
    <FormDialog v-model="issueOpen" :title="kind === 'invoice' ? t('issue_title') : t('issue_estimate_title')" :act="t('issue')" :is-sending="issuing.isSending.value" :message="issuing.message.value" @send="send" @cancel="issuing.clear">
      <p class="wide">{{ kind === 'invoice' ? t('issue_says', { total: billing.to_invoice }) : t('issue_estimate_says') }}</p>
    </FormDialog>
    <FormDialog v-model="cancelOpen" :title="t('cancel_it', { code: cancelled?.code ?? '' })" :act="t('issue_credit_note')" :leave="t('keep')" :is-sending="cancelling.isSending.value" :message="cancelling.message.value" @send="sendCancel" @cancel="cancelling.clear">
      <p class="wide">{{ t('cancel_says') }}</p>
      <v-text-field v-model="reason.reason" class="wide" data-first :label="t('reason')" maxlength="500" :error-messages="cancelling.faults.value.reason" />
    </FormDialog>
  </InstrumentFrame>
</template>

<style scoped>
.body {
  padding: 0 18px 18px;
}
h2 {
  margin: var(--space-3) 0 var(--space-1);
  font-size: var(--type-text);
}
.documents,
.payments {
  margin: 0;
  padding: 0;
  list-style: none;
}
.documents {
  display: grid;
  grid-template-columns: max-content max-content max-content minmax(0, 1fr) max-content;
  column-gap: var(--space-3);
}
.documents li {
  display: grid;
  grid-template-columns: subgrid;
  grid-column: 1 / -1;
  align-items: center;
  min-height: var(--hit);
  border-bottom: 1px solid var(--line);
}
.payments li {
  display: flex;
  gap: var(--space-2);
  align-items: center;
  justify-content: space-between;
  min-height: var(--hit);
  margin-bottom: var(--space-2);
}
.payments {
  margin-bottom: var(--space-3);
}
.figure {
  text-align: right;
}
.stopped {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.main {
  min-height: var(--main-button);
  white-space: normal;
}
.more {
  display: flex;
  gap: var(--space-3);
  align-items: center;
  margin-top: var(--space-4);
}
a {
  color: var(--action);
}
.absent {
  padding: 40px 24px;
  font-size: var(--type-label);
}
@media (max-width: 700px) {
  .documents {
    grid-template-columns: 1fr max-content;
  }
  .documents .figure {
    order: 1;
  }
  .documents li > span {
    order: 2;
  }
  .documents .state,
  .documents li > .v-btn {
    grid-column: 1 / -1;
    order: 3;
  }
}
</style>
