<script setup lang="ts">
/** The plan of a visit: works in their order with what each takes, what all of it comes to, and the owner's word. */
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { Family, PlannedWork } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useCommands } from '@/shared/commands'
import { usePageCommands } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import AddWorks from './AddWorks.vue'
import ApprovalDialog from './ApprovalDialog.vue'
import DiscountForm from './DiscountForm.vue'
import PlanLine from './PlanLine.vue'
import VariantList from './VariantList.vue'
import { usePlan, type Grade } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const atBench = useAtBench()
const acts = usePlan(() => props.ticket)
const { plan, failure, isSending } = acts
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })

const opened = ref('')
/** The line whose last act was refused: it is said there. */
const at = ref('')
const variant = ref<Grade>('all')
const approvalOpen = ref(false)
const family = computed(() => (bench.sheet?.instrument.family ?? 'violin') as Family)
const mayAct = computed(() => atBench.may('measure') && plan.value?.is_open === true)
const mayApprove = computed(() => atBench.may('arrive') && plan.value?.is_open === true && plan.value.lines.length > 0)
const grades = computed(() => (plan.value?.variants ?? []).map((one) => ({ grade: one.grade, label: one.label })))
const lines = computed(() => plan.value?.lines ?? [])
const running = computed(() => lines.value.find((line) => line.state === 'running') ?? null)
const next = computed(() => lines.value.find((line) => line.state !== 'done' && !line.stopped) ?? null)
const needsApproval = computed(() => lines.value.length > 0 && (!plan.value?.agreed || plan.value.unapproved !== ''))
/** One act is the main one: plan, then ask, then work. */
const main = computed((): { label: string; run: () => void } | null => {
  const proposed = plan.value?.proposals ?? []
  if (!lines.value.length && proposed.length && mayAct.value) return { label: t('plan_what_was_found'), run: () => void acts.add(proposed.map((one) => one.work)) }
  if (running.value) return { label: t('done_3', { work: running.value.label }), run: () => (opened.value = running.value?.id ?? '') }
  if (needsApproval.value && mayApprove.value) return { label: t('record_approval'), run: askForApproval }
  if (next.value && mayAct.value) return { label: t('begin_2', { work: next.value.label }), run: () => void on(next.value, acts.begin) }
  return null
})
async function on(line: PlannedWork | null, act: (id: string) => Promise<boolean>): Promise<void> {
  if (!line) return
  at.value = line.id
  opened.value = line.id
  await act(line.id)
}
function move(i: number, by: 1 | -1): void {
  const line = lines.value[i]
  const before = by < 0 ? (lines.value[i - 1]?.id ?? null) : (lines.value[i + 2]?.id ?? null)
  void on(line ?? null, (id) => acts.move(id, before))
}
function add(works: string[]): void {
  at.value = ''
  void acts.add(works)
}
function askForApproval(): void {
  at.value = ''
  acts.clear()
  approvalOpen.value = true
}
const toSheet = () => void router.push({ name: 'bench', params: { ticket: props.ticket } })
usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: toSheet },
  { letter: 'a', own: true, words: t('record_approval_2'), run: askForApproval, possible: () => mayApprove.value },
  { letter: 't', own: true, words: t('begin_the_next_work'), run: () => void on(next.value, acts.begin), possible: () => mayAct.value && next.value !== null },
  { letter: 'p', own: true, words: t('plan_what_was_found_2'), run: () => void acts.add((plan.value?.proposals ?? []).map((one) => one.work)), possible: () => mayAct.value && (plan.value?.proposals.length ?? 0) > 0 },
  { letter: 'o', own: true, words: t('the_estimate_on_paper'), run: () => void router.push({ name: 'estimate', params: { ticket: props.ticket } }), possible: () => lines.value.length > 0 },
])
</script>

<template>
  <p v-if="failure && !plan" class="absent" role="alert">{{ failure }}</p>
  <InstrumentFrame v-else-if="plan && bench.sheet" :ticket="ticket" page="plan" :title="t('plan_and_estimate')" :label="t('plan_and_estimate')">
    <template #head>
      <b v-if="lines.length" role="status">{{ plan.total_says }}</b>
    </template>
    <div class="body">
      <p v-if="!lines.length" class="none">{{ plan.proposals.length ? t('nothing_is_planned_yet_what') : t('nothing_is_planned_yet_and') }}</p>
      <ol v-else class="lines" :aria-label="t('works_in_their_order')">
        <PlanLine
          v-for="(line, i) in lines"
          :key="line.id"
          :line="line"
          :family="family"
          :grades="grades"
          :is-open="opened === line.id"
          :may-act="mayAct"
          :is-first="i === 0"
          :is-last="i === lines.length - 1"
          :fault="at === line.id ? failure : ''"
          @toggle="opened = opened === line.id ? '' : line.id"
          @drop="on(line, acts.drop)"
          @up="move(i, -1)"
          @down="move(i, 1)"
          @grade="(grade) => on(line, (id) => acts.grade(id, grade))"
          @use="(item, count) => on(line, (id) => acts.use(id, item, count))"
          @put-back="(part) => on(line, () => acts.putBack(part))"
          @begin="on(line, acts.begin)"
          @pause="on(line, acts.pause)"
          @finish="(minutes) => on(line, (id) => acts.finish(id, minutes))"
        />
      </ol>
      <AddWorks v-if="mayAct" :ticket="ticket" :plan="plan" :fault="at === '' && !approvalOpen ? failure : ''" :add-underway="acts.addOne" @add="add" />
    </div>
    <template #todo>
      <VariantList v-if="lines.length" v-model="variant" :variants="plan.variants" :value="plan.value" :tax="plan.tax" :discount="plan.discount" />
      <DiscountForm v-if="lines.length && atBench.may('sign_off') && plan.is_open" :ticket="ticket" :percent="plan.discount_percent" :says="plan.discount" :give="acts.discount" />
      <template v-if="plan.agreed">
        <h2>{{ t('approved') }}</h2>
        <p>{{ plan.spent }}</p>
        <p v-if="plan.unapproved" class="since"><b>{{ plan.unapproved }}</b></p>
        <ul class="approvals">
          <li v-for="one in plan.approvals" :key="one.id">{{ one.says }}<template v-if="one.words">: “{{ one.words }}”</template><svg v-if="one.signature" viewBox="0 0 280 88" width="140" height="44" role="img" :aria-label="t('signed')"><path :d="one.signature" fill="none" stroke="currentColor" stroke-width="2" /></svg></li>
        </ul>
        <v-btn v-if="mayApprove && plan.approvals[0]" size="small" @click="acts.takeBack(plan.approvals[0].id)">{{ t('undo_the_approval') }}</v-btn>
      </template>
      <p v-if="lines.length"><router-link :to="{ name: 'estimate', params: { ticket } }">{{ t('the_estimate_for_the_owner') }}</router-link></p>
      <p v-if="lines.length && bench.sheet.instrument.is_fleet"><router-link :to="{ name: 'fleet-estimate', params: { owner: bench.sheet.instrument.owner } }">{{ t('the_estimate_for_the_whole') }}</router-link></p>
      <p><router-link :to="{ name: 'billing', params: { ticket } }">{{ t('invoice_and_payments') }}</router-link></p>
      <p><router-link :to="{ name: 'drawers' }">{{ t('drawers_rates_and_limits') }}</router-link></p>
    </template>
    <template v-if="main" #main>
      <v-btn variant="flat" block class="main" :loading="isSending" @click="main.run()">{{ main.label }}</v-btn>
    </template>
    <ApprovalDialog v-model="approvalOpen" :ticket="ticket" :plan="plan" :owner="bench.sheet.instrument.owner" :approve="acts.approve" />
  </InstrumentFrame>
</template>

<style scoped>
.body {
  padding: 0 18px 18px;
}
.lines,
.approvals {
  margin: 0;
  padding: 0;
  list-style: none;
}
.none {
  margin: var(--space-3) 0;
  font-size: var(--type-label);
}
h2 {
  margin: var(--space-4) 0 0;
  font-size: var(--type-text);
}
.since {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.main {
  min-height: var(--main-button);
  white-space: normal;
}
a {
  color: var(--action);
}
.absent {
  padding: 40px 24px;
  font-size: var(--type-label);
}
</style>
