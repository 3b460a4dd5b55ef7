<script setup lang="ts">
/** The end of a visit: the checklist in the order of the map, what stays open with its reason, and the signature. */
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { ClosingPoint } from '@/api'
import { useBench } from '@/features/bench'
import { InstrumentFrame } from '@/features/frame'
import { useHouse } from '@/features/rail'
import { useCommands } from '@/shared/commands'
import { usePageCommands } from '@/shared/pages'
import { useAtBench } from '@/shared/person'
import { useStoredRecord } from '@/shared/storedRecord'
import LeaveForm from './LeaveForm.vue'
import PointRow from './PointRow.vue'
import SealCard from './SealCard.vue'
import { useLeaving, type Leave } from './useLeaving'
import { t } from '@/words/leaving'

const props = defineProps<{ ticket: string }>()
const router = useRouter()
const bench = useBench()
const house = useHouse()
const atBench = useAtBench()
const { list, failure, faults, isSending, check, notRight, undoCheck, handOver, takeBack, add } = useLeaving(() => props.ticket)
watch(() => props.ticket, (ticket) => void bench.open(ticket), { immediate: true })

const GROUPS = {
  part: t('part_by_part'),
  pitch: t('check_at_pitch'),
  things: t('what_belongs_to_it'),
  damage: t('damage'),
  waiting: t('waits_that_still_run'),
  planned: t('planned_and_not_done'),
  decided: t('decided'),
} as const
const groups = computed(() =>
  (Object.keys(GROUPS) as (keyof typeof GROUPS)[])
    .map((key) => ({ key, points: (list.value?.points ?? []).filter((point) => point.group === key) }))
    .filter((group) => group.points.length),
)
const mayCheck = computed(() => atBench.may('measure') && list.value?.may_sign === true)
/** What an apprentice did of a luthier's work, a luthier looks at. */
const mayCheckIt = (point: ClosingPoint) => mayCheck.value && (atBench.may('sign_off') || !point.key.startsWith('pitch:by_apprentice_'))
const unchecked = computed(() => (list.value?.points ?? []).filter((point) => point.state === 'unchecked' && mayCheckIt(point)))

/** What was written stays until it is signed; a PIN is kept nowhere. */
const { record: drafts, set: keep } = useStoredRecord<Omit<Leave, 'pin'>>('leave')
const pin = ref('')
watch(() => props.ticket, () => (pin.value = ''))
const leave = computed<Leave>({
  get: () => ({
    ...(drafts.value[list.value?.visit_id ?? ''] ?? {
      left_open: {},
      next_check: list.value?.proposed_check ?? '',
      next_check_why: list.value?.proposed_why ?? '',
      received_by: '',
      signature: '',
    }),
    pin: pin.value,
  }),
  set: ({ pin: typed, ...rest }) => {
    pin.value = typed
    if (list.value) keep(list.value.visit_id, rest)
  },
})
const silent = computed(() => {
  if (leave.value.left_open['']?.trim()) return []
  return (list.value?.points ?? []).filter((point) => point.is_open && !leave.value.left_open[point.key]?.trim())
})
/** Why it cannot be signed yet, in words; nothing where it can. */
const hindered = computed(() => {
  if (!atBench.may('sign_off')) return t('a_luthier_signs_checks_the', { person: atBench.person })
  if (bench.waiting.length) return t('something_still_waits_to_be')
  if (silent.value.length) return t('other_no_reason_yet', { count: silent.value.length })
  return leave.value.pin ? '' : t('the_pin_is_missing')
})

const at = ref('')
async function say(point: ClosingPoint, run: () => Promise<boolean>): Promise<void> {
  at.value = point.key
  await run()
}
const nameOf = (point: ClosingPoint) => point.key.replace('pitch:', '')
const allRight = () => void check(unchecked.value.map(nameOf))
async function sign(): Promise<void> {
  if (hindered.value) return
  at.value = ''
  const visit = list.value?.visit_id ?? ''
  if (await handOver(leave.value)) {
    keep(visit, undefined)
    void house.load()
  }
  pin.value = ''
}
async function openAgain(): Promise<void> {
  if (await takeBack()) void house.load()
}

/** Up and down from point to point of the check at pitch. */
const rows = ref<HTMLElement | null>(null)
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  const all = [...(rows.value?.querySelectorAll<HTMLElement>('[data-point][tabindex]') ?? [])]
  const here = document.activeElement?.closest('[data-point]')
  const to = all[all.findIndex((row) => row === here) + (event.key === 'ArrowDown' ? 1 : -1)]
  if (!to) return
  event.preventDefault()
  to.focus()
}
const toFirst = () => void nextTick(() => rows.value?.querySelector<HTMLElement>('[data-point^="pitch"][tabindex]')?.focus())

usePageCommands(() => props.ticket, () => bench.sheet?.instrument.family ?? '')
useCommands([
  { letter: 'e', words: t('bench_sheet'), run: () => void router.push({ name: 'bench', params: { ticket: props.ticket } }) },
  { letter: 'k', own: true, words: t('to_the_check_at_pitch'), run: toFirst, possible: () => mayCheck.value },
  { letter: 'a', own: true, words: t('all_that_is_left_is'), run: allRight, possible: () => mayCheck.value && unchecked.value.length > 0 },
  { letter: 'y', own: true, words: t('sign_and_hand_over'), run: () => void sign(), possible: () => list.value?.may_sign === true && !hindered.value },
])
</script>

<template>
  <p v-if="failure && !list" class="absent" role="alert">{{ failure }}</p>
  <InstrumentFrame v-else-if="list && bench.sheet" :ticket="ticket" page="leave" :title="t('hand_over')" :label="t('hand_over_2')">
    <template #head>
      <b v-if="list.seal" role="status">{{ t('signed_by_2', { name: list.seal.signed_by }) }}</b>
    </template>
    <div ref="rows" class="body" @keydown="onKey">
      <section v-for="group in groups" :key="group.key" :aria-label="GROUPS[group.key]">
        <header>
          <h2>{{ GROUPS[group.key] }}</h2>
          <v-btn v-if="group.key === 'pitch' && mayCheck && unchecked.length" size="small" @click="allRight">{{ t('the_left_are_right', { count: unchecked.length }) }}</v-btn>
          <router-link v-if="group.key === 'pitch' && atBench.may('recipes')" :to="{ name: 'closing-points' }">{{ t('edit_the_shops_list') }}</router-link>
        </header>
        <ul class="points">
          <PointRow
            v-for="point in group.points"
            :key="point.key"
            :point="point"
            :ticket="ticket"
            :may-check="mayCheckIt(point)"
            :not-right="(id, words) => notRight(id, nameOf(point), words)"
            :fault="at === point.key ? failure : ''"
            @right="say(point, () => check([nameOf(point)]))"
            @undo="say(point, () => undoCheck(nameOf(point)))"
          />
        </ul>
      </section>
    </div>
    <template #todo>
      <SealCard v-if="list.seal" :list="list" :may-add="atBench.may('measure')" :may-take-back="atBench.may('sign_off')" :fault="failure" :add="add" @take-back="openAgain" />
      <LeaveForm v-else-if="list.may_sign" v-model="leave" :list="list" :faults="faults" @to-checks="toFirst" />
      <p v-else>{{ t('this_visit_ended_before_visits') }}</p>
    </template>
    <template v-if="list.may_sign" #main>
      <label v-if="atBench.may('sign_off')" class="pin">{{ t('pin_of', { person: atBench.person }) }} <input v-model="pin" class="entry" type="password" inputmode="numeric" autocomplete="off" maxlength="200" @keydown.enter="sign" /></label>
      <p v-if="faults.pin" class="fault" role="alert">{{ faults.pin }}</p>
      <p v-if="hindered" class="hindered">{{ hindered }}</p>
      <p v-else-if="failure && !at && !Object.keys(faults).length" class="fault" role="alert">{{ failure }}</p>
      <v-btn variant="flat" block class="main" :disabled="!!hindered" :loading="isSending" @click="sign">{{ t('sign_and_hand_over_2') }}</v-btn>
    </template>
  </InstrumentFrame>
</template>

<style scoped>
.body {
  padding: 0 18px 18px;
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 18px;
  min-height: var(--hit);
}
h2 {
  margin: 0;
  font-size: var(--type-label);
}
header a {
  margin-left: auto;
  color: var(--action);
}
.points {
  margin: 0;
  padding: 0;
  list-style: none;
}
.pin {
  display: grid;
  grid-template-columns: 1fr 104px;
  align-items: center;
  gap: 8px;
  margin-bottom: 6px;
}
.hindered {
  margin: 0 0 6px;
}
.main {
  min-height: var(--main-button);
  white-space: normal;
}
.absent {
  padding: 40px 24px;
  font-size: var(--type-label);
}
</style>
