<script setup lang="ts">
/** What was paid, by what and when; what is open stands there already. */
import { watch } from 'vue'
import type { BillingView } from '@/api'
import { useFormEntry } from '@/shared/entry'
import type { PaymentForm } from './useBilling'
import { t } from '@/words/billing'

const props = defineProps<{ billing: BillingView; pay: (id: string, form: PaymentForm) => Promise<void> }>()
const empty = (): PaymentForm => ({ amount: Number(props.billing.suggested) > 0 ? props.billing.suggested : '', way: 'card', paid_on: props.billing.today, remark: '' })
const { draft, message, faults, isSending, begin, send } = useFormEntry({ kind: 'payment', of: () => props.billing.ticket, empty })
watch([() => props.billing.ticket, () => props.billing.suggested], begin, { immediate: true })
const ways = Object.entries(props.billing.ways).map(([value, title]) => ({ value, title }))
</script>

<template>
  <form :aria-label="t('record_payment')" @submit.prevent="send((id, typed) => pay(id, typed))">
    <v-text-field id="payment-amount" v-model="draft.amount" :label="t('amount')" inputmode="decimal" autocomplete="off" :error-messages="faults.amount" />
    <v-select v-model="draft.way" :label="t('way')" :items="ways" :error-messages="faults.way" />
    <v-text-field v-model="draft.paid_on" :label="t('paid_on')" type="date" :error-messages="faults.paid_on" />
    <v-text-field v-model="draft.remark" :label="t('remark')" maxlength="500" />
    <v-btn type="submit" :loading="isSending">{{ t('record_payment') }}</v-btn>
    <p v-if="message && !Object.keys(faults).length" role="alert">{{ message }}</p>
    <p class="note">{{ t('minus_goes_back') }}</p>
  </form>
</template>

<style scoped>
form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-2);
  align-items: start;
}
.note,
form > [role='alert'],
.v-btn {
  grid-column: 1 / -1;
}
.note {
  margin: 0;
}
</style>
