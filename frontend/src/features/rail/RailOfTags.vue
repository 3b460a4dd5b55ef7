<script setup lang="ts">
/** The rail: every instrument in the house hangs on it as a tag. */
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { storeToRefs } from 'pinia'
import { useRouter } from 'vue-router'
import type { Tag } from '@/api'
import { useCommands } from '@/shared/commands'
import FamilyShape from '@/shared/FamilyShape.vue'
import { day } from '@/shared/format'
import { RAIL_ORDERS, type RailOrder } from './order'
import { useHouse } from './store'
import { t } from '@/words/rail'

/** bare : the page below lists every instrument itself. */
const props = defineProps<{ open: string; bare?: boolean }>()

const house = useHouse()
const router = useRouter()
const { words } = storeToRefs(house)
const field = ref<HTMLInputElement | null>(null)
const line = ref<HTMLElement | null>(null)
const found = computed(() => house.found(words.value))

/* Of hundreds of tags only those around what is seen are drawn: a tag and its gap are equally wide everywhere. */
const TAG_PX = 192
const DRAWN = 40
const BEFORE = 12
const seenFrom = ref(0)
const from = computed(() => Math.max(0, Math.min(seenFrom.value - BEFORE, found.value.length - DRAWN)))
const drawn = computed(() => found.value.slice(from.value, from.value + DRAWN))
const left = computed(() => `${from.value * TAG_PX}px`)
const right = computed(() => `${Math.max(0, found.value.length - from.value - DRAWN) * TAG_PX}px`)
function onScroll(): void {
  seenFrom.value = Math.floor((line.value?.scrollLeft ?? 0) / TAG_PX / 4) * 4
}

/** The next manner of hanging them. */
function otherOrder(): void {
  const orders = Object.keys(RAIL_ORDERS) as RailOrder[]
  house.order = orders[(orders.indexOf(house.order) + 1) % orders.length] ?? 'ticket'
}
useCommands([
  { letter: 'f', general: true, words: t('find_an_instrument'), run: () => void nextTick(() => field.value?.focus()) },
  { letter: 'q', general: true, words: t('sort_order'), run: otherOrder },
])

/** Enter before the tags have come opens the first one that fits when they do. */
const openWhenLoaded = ref(false)
watch(
  () => house.isLoaded,
  () => {
    if (openWhenLoaded.value) openFirst()
  },
)

function openFirst(): void {
  const first = found.value[0]
  openWhenLoaded.value = !house.isLoaded
  if (!first) return
  words.value = ''
  field.value?.blur()
  void router.push({ name: 'bench', params: { ticket: first.ticket } })
}
/** Where it stands, or what it waits for and until when. */
function stepOf(tag: Tag): string {
  return [tag.step || house.waitOf(tag), tag.deadline ? t('for', { day: day(tag.deadline) }) : ''].filter(Boolean).join(' · ')
}
function titleOf(tag: Tag): string {
  const wait = house.waitOf(tag) && `. Waits: ${house.waitOf(tag)}`
  return `${tag.ticket} ${tag.family} ${tag.size}, ${tag.owner}, ${tag.kind}: ${tag.complaint}${wait}`
}
function leave(): void {
  words.value = ''
  field.value?.blur()
}

/** Bring the open tag into sight, and no further than it takes. */
function showOpen(): void {
  void nextTick(() => {
    const at = found.value.findIndex((tag) => tag.ticket === props.open)
    if (at < 0 || !line.value) return
    const { scrollLeft, clientWidth } = line.value
    const ends = (at + 1) * TAG_PX
    if (at * TAG_PX < scrollLeft) line.value.scrollLeft = at * TAG_PX
    else if (ends > scrollLeft + clientWidth) line.value.scrollLeft = ends - clientWidth
    onScroll()
  })
}
watch([() => props.open, () => found.value.length, () => house.order], showOpen)
onMounted(showOpen)
</script>

<template>
  <nav class="rail only-screen" :aria-label="t('instruments_in_the_house')">
    <div class="find">
      <label class="only-read" for="find">{{ t('find_an_instrument_2') }}</label>
      <input
        id="find"
        ref="field"
        v-model="words"
        type="search"
        :placeholder="t('find')"
        autocomplete="off"
        @keydown.enter.prevent="openFirst"
        @keydown.esc.prevent="leave"
      />
    </div>
    <div ref="line" class="line" @scroll.passive="onScroll">
      <template v-if="!bare">
      <router-link
        v-for="tag in drawn"
        :key="tag.ticket"
        :to="{ name: 'bench', params: { ticket: tag.ticket } }"
        class="tag"
        :class="{ open: tag.ticket === open }"
        :aria-current="tag.ticket === open ? 'page' : undefined"
        :title="titleOf(tag)"
      >
        <FamilyShape :family="tag.family" />
        <span class="text">
          <span class="first"><b>{{ tag.ticket }}</b> <span class="owner">{{ tag.owner }}</span></span>
          <span class="step">{{ stepOf(tag) }}<template v-if="tag.left_handed">{{ ' ' }}{{ t('left_handed') }}</template></span>
        </span>
      </router-link>
      </template>
      <template v-if="!bare || !house.isLoaded">
      <p v-if="house.isLoaded && !found.length && words" class="none">{{ t('no_tag_has', { words }) }} <kbd>Esc</kbd> {{ t('shows_all') }}</p>
      <p v-else-if="house.isLoaded && !found.length" class="none">{{ t('no_instrument_is_in_the') }}</p>
      <p v-else-if="!house.isLoaded" class="none">{{ house.isAway ? t('the_server_does_not_answer') : t('loading') }}</p>
      </template>
    </div>
    <slot />
  </nav>
</template>

<style scoped>
.rail {
  display: flex;
  align-items: flex-start;
  gap: 12px;
  padding: 0 16px;
  border-top: 3px solid var(--ink);
}
.find {
  flex: none;
  padding-top: 10px;
}
.find input {
  width: 92px;
  height: 50px;
  padding: 0 10px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
/* The places of the tags that are not drawn. */
.line::before,
.line::after {
  content: '';
  flex: none;
  width: v-bind(left);
  margin-right: -8px;
}
.line::after {
  width: v-bind(right);
  margin: 0 0 0 -8px;
}
.line {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 8px;
  overflow-x: auto;
  scrollbar-width: thin;
  padding: 10px 3px 4px;
}
.tag {
  position: relative;
  flex: none;
  display: flex;
  align-items: center;
  gap: 6px;
  width: 184px;
  height: 50px;
  padding: 0 8px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
  color: var(--ink);
  text-decoration: none;
}
.tag::before {
  content: '';
  position: absolute;
  left: 18px;
  top: -11px;
  height: 11px;
  border-left: 1.5px solid var(--ink);
}
.tag.open {
  background: var(--chosen);
  color: var(--on-chosen);
  border-color: var(--ink);
}
.text {
  min-width: 0;
  display: grid;
  line-height: 1.2;
}
.first,
.step {
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.owner {
  font-size: var(--type-note);
}
.step {
  font-size: var(--type-map);
}
.none {
  margin: 14px 8px;
}
/* A phone is at one instrument: the others are in the house, and found by words. */
@media (max-width: 640px) {
  .rail {
    gap: 0 8px;
    padding: 0 8px;
  }
  .find,
  .find input {
    flex: 1;
    width: 100%;
  }
  .tag {
    display: none;
  }
}
</style>
