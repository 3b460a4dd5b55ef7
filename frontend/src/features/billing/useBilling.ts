/** What is billed and paid of an instrument, and changes to it, each of which answers with the whole. */
import { ref, watch, type ComputedRef, type Ref } from 'vue'
import { answerOf, api, Refused, type BillingView } from '@/api'
import { useTicketActs } from '@/shared/ticketActs'

export interface PaymentForm {
  amount: string
  way: 'cash' | 'card' | 'transfer'
  paid_on: string
  remark: string
}

export interface UseBillingReturn {
  billing: Ref<BillingView | null>
  /** Why the page, or the last change, came to nothing. */
  failure: Ref<string>
  isSending: ComputedRef<boolean>
  load: () => Promise<void>
  takeBack: (payment: string) => Promise<boolean>
  /** These throw Refused, for their form. total : as it was shown. */
  issue: (id: string, kind: 'estimate' | 'invoice', total: string) => Promise<void>
  cancel: (id: string, invoice: string, reason: string) => Promise<void>
  pay: (id: string, form: PaymentForm) => Promise<void>
  price: (id: string, work: string, minutes: string) => Promise<void>
}

export function useBilling(ticket: () => string): UseBillingReturn {
  const billing = ref<BillingView | null>(null)
  let asked = 0
  const { failure, isSending, act, run } = useTicketActs<BillingView>({
    ticket,
    show: (now) => {
      asked += 1
      billing.value = now
    },
    refused: () => void load(),
  })

  async function load(): Promise<void> {
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/instruments/{ticket}/billing', { params: { path: { ticket: ticket() } } }))
      if (mine === asked) billing.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked && !billing.value) failure.value = error.message
    }
  }
  watch(ticket, () => {
    billing.value = null
    failure.value = ''
    void load()
  }, { immediate: true })

  return {
    billing,
    failure,
    isSending,
    load,
    takeBack: (payment_id) =>
      act(`take back ${payment_id}`, ({ params: { path } }) =>
        answerOf(api.POST('/api/instruments/{ticket}/billing/payments/{payment_id}/take-back', { params: { path: { ...path, payment_id } } })),
      ),
    issue: (id, kind, total) => run(`issue ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/billing/documents', { ...at, body: { id, kind, total } }))),
    cancel: (id, document_id, reason) =>
      run(`cancel ${id}`, ({ params: { path } }) =>
        answerOf(api.POST('/api/instruments/{ticket}/billing/documents/{document_id}/cancel', { params: { path: { ...path, document_id } }, body: { id, reason } })),
      ),
    pay: (id, form) => run(`pay ${id}`, (at) => answerOf(api.POST('/api/instruments/{ticket}/billing/payments', { ...at, body: { id, ...form } }))),
    price: (id, work_id, minutes) =>
      run(`price ${id}`, ({ params: { path } }) =>
        answerOf(api.POST('/api/instruments/{ticket}/billing/works/{work_id}', { params: { path: { ...path, work_id } }, body: { id, minutes } })),
      ),
  }
}
