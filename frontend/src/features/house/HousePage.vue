<script setup lang="ts">
/** The house: every visit as a string across time, the next hand first. */
import { useElementSize, useIntervalFn, watchDebounced } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { answerOf, api, type CheckDue, type KnownView, type Tag } from '@/api'
import { useHouse } from '@/features/rail'
import { useCommands } from '@/shared/commands'
import FamilyShape from '@/shared/FamilyShape.vue'
import { day } from '@/shared/format'
import { useLatest } from '@/shared/loaded'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import { axisOf } from './axis'
import { groupsOf, HOUSE_ORDERS, type HouseOrder } from './groups'
import TimeString from './TimeString.vue'
import { t } from '@/words/house'

const MINUTE_MS = 60_000
const FIND_AFTER_MS = 250

const house = useHouse()
const atBench = useAtBench()
const router = useRouter()
const { commands } = useCommands()
const order = useStored<HouseOrder>('house-order', 'hand')
const now = ref(Date.now())
useIntervalFn(() => (now.value = Date.now()), MINUTE_MS)

const shown = computed(() => house.found(house.words))
const groups = computed(() => groupsOf(shown.value, order.value, now.value))
const counts = computed(() => {
  const all = groupsOf(shown.value, 'hand', now.value)
  return [t('other', { count: shown.value.length }), ...all.map((group) => t('text', { count: group.tags.length, hand: group.name.toLowerCase() }))].join(' · ')
})
const next = computed((): Tag | null => groupsOf(house.tags, 'hand', now.value).find((group) => group.hand === 'ready')?.tags[0] ?? null)

const time = ref<HTMLElement | null>(null)
const { width } = useElementSize(time, { width: 600, height: 0 })
const axis = computed(() => axisOf(now.value, Math.min(now.value, ...house.tags.map((tag) => Date.parse(tag.opened_at)))))

/** What was handed over is found by the same words. */
const gone = ref<KnownView[]>([])
const latestKnown = useLatest()
watchDebounced(() => house.words, (words) => latestKnown(
  () => (words.trim() ? answerOf(api.GET('/api/known', { params: { query: { words } } })) : Promise.resolve<KnownView[]>([])),
  (found) => (gone.value = found.filter((one) => !one.in_house)),
  () => (gone.value = []),
), { debounce: FIND_AFTER_MS })

/** What should come again, or should have come; asked for again as the house changes. */
const due = ref<CheckDue[]>([])
const latestDue = useLatest()
watch(() => house.tags.length, () => latestDue(() => answerOf(api.GET('/api/checks-due')), (found) => (due.value = found)), { immediate: true })

const initials = (tag: Tag) => tag.done.at(-1)?.by.split(/[\s-]+/).map((part) => part.charAt(0)).join('').slice(0, 3) ?? ''
function owed(tag: Tag): string {
  return [tag.deadline && t('needed', { day: day(tag.deadline) }), tag.promised && t('promised', { day: day(tag.promised) })].filter(Boolean).join(', ')
}
const stepOf = (tag: Tag) => tag.step || house.waitOf(tag)
const takeIn = () => commands.value.find((command) => command.letter === 'n')?.run()
const open = (tag: Tag) => void router.push({ name: 'bench', params: { ticket: tag.ticket } })

function otherOrder(): void {
  const names = Object.keys(HOUSE_ORDERS) as HouseOrder[]
  order.value = names[(names.indexOf(order.value) + 1) % names.length] ?? 'hand'
}
useCommands([
  { letter: 'q', own: true, words: t('sorted_otherwise'), run: otherOrder },
  { letter: 's', own: true, words: t('start_the_next'), run: () => next.value && open(next.value), possible: () => next.value !== null },
])

/** Up and down from row to row. */
const list = ref<HTMLElement | null>(null)
function onKey(event: KeyboardEvent): void {
  if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
  const rows = [...(list.value?.querySelectorAll<HTMLElement>('a.row') ?? [])]
  const at = rows.findIndex((row) => row === document.activeElement)
  const to = rows[event.key === 'ArrowDown' ? at + 1 : at - 1]
  if (!to) return
  event.preventDefault()
  to.focus()
}
/** Whose it is and what it is; an instrument that nobody is named for is just what it is. */
function whose(one: { owner: string; family: string; size: string }): string {
  return [one.owner, `${one.family} ${one.size}`].filter(Boolean).join(' · ')
}
</script>

<template>
  <main class="house" :aria-label="t('in_the_house')">
    <header class="head">
      <h1>{{ house.tags.length || !house.isLoaded ? t('in_the_house') : t('no_instrument_is_in_the') }}</h1>
      <span v-if="house.tags.length">{{ counts }}</span>
      <label v-if="house.tags.length" class="order">{{ t('sorted_by') }} <select v-model="order"><option v-for="(words, name) in HOUSE_ORDERS" :key="name" :value="name">{{ words }}</option></select></label>
    </header>
    <p v-if="house.isLoaded && !house.tags.length" class="empty">
      <v-btn v-if="atBench.may('arrive')" variant="flat" @click="takeIn">{{ t('take_in_the_first_instrument') }}</v-btn>
    </p>
    <div v-if="house.tags.length" ref="list" class="rows" @keydown="onKey">
      <div class="row axis" aria-hidden="true">
        <span class="ticket"></span><span class="step"></span><span class="by"></span>
        <div ref="time" class="time">
          <span class="at" :style="{ left: '0' }">{{ t('earlier') }}</span>
          <span class="at strong" :style="{ left: `${axis.today * 100}%` }">{{ t('today') }}</span>
          <span v-for="one in width > 520 ? axis.hours.slice(1) : []" :key="one.hour" class="at hour" :style="{ left: `${one.at * 100}%` }">{{ one.hour }}</span>
          <span v-for="one in axis.days" :key="one.when" class="at" :style="{ left: `${one.at * 100}%` }">{{ new Date(one.when).toLocaleDateString('en-GB', width > 520 ? { weekday: 'short', day: 'numeric' } : { weekday: 'short' }) }}</span>
          <span class="at" :style="{ left: `${axis.later * 100}%` }">{{ t('later') }}</span>
        </div>
        <span class="owed">{{ t('due') }}</span>
      </div>
      <section v-for="group in groups" :key="group.name" :aria-label="group.name || t('all')">
        <h2 v-if="group.name">{{ group.name }}</h2>
        <router-link v-for="tag in group.tags" :key="tag.ticket" :to="{ name: 'bench', params: { ticket: tag.ticket } }" class="row" :title="tag.complaint">
          <b class="ticket">{{ tag.ticket }}</b>
          <span class="step"><b>{{ stepOf(tag) }}</b><small>{{ whose(tag) }}<template v-if="tag.left_handed">{{ t('left_handed') }}</template></small></span>
          <span class="by" :title="tag.done.at(-1)?.by">{{ initials(tag) }}</span>
          <TimeString class="time" :tag="tag" :axis="axis" :width="width" :now="now" />
          <span class="owed">{{ owed(tag) }}</span>
        </router-link>
      </section>
      <p v-if="!shown.length" class="none">{{ t('no_instrument_in_the_house', { house: house.words }) }} <kbd>Esc</kbd> {{ t('shows_all') }}</p>
      <section v-if="due.length && !house.words" :aria-label="t('due_for_a_check')">
        <h2>{{ t('due_for_a_check') }}</h2>
        <router-link v-for="one in due" :key="one.ticket" :to="{ name: 'bench', params: { ticket: one.ticket } }" class="row due">
          <b class="ticket">{{ one.ticket }}</b>
          <span class="step"><b>{{ one.says }}</b><small>{{ whose(one) }}</small></span>
          <span class="why">{{ one.why }}</span>
          <span class="owed">{{ day(one.due) }}</span>
        </router-link>
      </section>
      <section v-if="gone.length" :aria-label="t('handed_over')">
        <h2>{{ t('handed_over') }}</h2>
        <router-link v-for="one in gone" :key="one.ticket" :to="{ name: 'bench', params: { ticket: one.ticket } }" class="row gone">
          <FamilyShape :family="one.family" />
          <b>{{ one.ticket }}</b> {{ one.family }} {{ one.size }} · {{ one.owner }} · {{ one.last_complaint }}
        </router-link>
      </section>
    </div>
    <v-btn v-if="next" variant="flat" class="start" @click="open(next)">{{ t('start', { ticket: next.ticket, step_of: stepOf(next) }) }}</v-btn>
  </main>
</template>

<style scoped>
.house {
  margin: 6px 16px 62px;
  padding: 6px 18px 70px;
  background: var(--sheet);
  border-radius: var(--corner);
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 18px;
  min-height: var(--hit);
}
h1 {
  margin: 0;
  font-size: var(--type-title);
}
h2 {
  margin: 8px 0 0;
  font-size: var(--type-text);
}
.order {
  margin-left: auto;
}
select {
  min-height: var(--hit);
  font: inherit;
  font-weight: 700;
  color: var(--ink);
  background: transparent;
  border: 0;
  border-bottom: 1px solid var(--ink);
}
.row {
  display: grid;
  grid-template-columns: 84px 232px 44px minmax(0, 1fr) 104px;
  align-items: center;
  min-height: var(--hit);
  color: var(--ink);
  text-decoration: none;
  border-top: 1px solid var(--hairline);
  content-visibility: auto;
  contain-intrinsic-size: auto 44px;
}
a.row:hover {
  background: var(--note);
}
.row.axis {
  position: sticky;
  top: 0;
  z-index: 1;
  min-height: 28px;
  background: var(--sheet);
  border-top: 0;
  content-visibility: visible;
}
.axis .time {
  position: relative;
  height: 22px;
}
.at {
  position: absolute;
  padding-left: 3px;
  font-size: var(--type-note);
  white-space: nowrap;
}
.hour {
  color: var(--quiet);
}
.strong {
  font-weight: 700;
}
.ticket {
  font-size: var(--type-label);
}
.step {
  min-width: 0;
  display: grid;
  line-height: 1.2;
}
.step > * {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.step b {
  font-size: var(--type-label);
}
.step b::first-letter {
  text-transform: uppercase;
}
.step small,
.by,
.owed {
  font-size: var(--type-note);
}
.by {
  color: var(--quiet);
}
.owed {
  padding-left: 8px;
  line-height: 1.2;
}
.none,
.empty {
  margin: 16px 0;
}
.gone {
  display: flex;
  gap: 10px;
}
.start {
  position: fixed;
  right: 32px;
  bottom: 64px;
  z-index: 3;
  min-width: 280px;
  min-height: var(--main-button);
}
@media (max-width: 820px) {
  .house {
    margin: 4px 0 56px;
    padding: 4px 12px 70px;
  }
  .row {
    grid-template-columns: 76px minmax(0, 1fr) auto;
    min-height: 64px;
  }
  .row.axis,
  .row .time,
  .by {
    display: none;
  }
  .start {
    right: 12px;
    left: 12px;
    bottom: 62px;
  }
}
.row.due {
  grid-template-columns: 84px 232px minmax(0, 1fr) 104px;
}
</style>
