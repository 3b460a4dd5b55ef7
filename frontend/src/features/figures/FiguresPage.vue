<script setup lang="ts">
/** The shop's figures, a page for each family and size; the opened one is changed at the side. */
import { computed, nextTick, ref, watch } from 'vue'
import type { RouteLocationRaw } from 'vue-router'
import { type Family, answerOf, api, Refused, type FigurePage, type FigureRow } from '@/api'
import { useCommands } from '@/shared/commands'
import PageWithSide from '@/shared/PageWithSide.vue'
import FamilyTabs from '@/shared/FamilyTabs.vue'
import { freshId } from '@/shared/id'
import BandGlyph from './BandGlyph.vue'
import FigureEditor from './FigureEditor.vue'
import { grouped, hasFigure, inWords, keyOfRow, nameOfRow } from './rows'
import { t } from '@/words/figures'


const props = defineProps<{ family: string; size: string }>()

const page = ref<FigurePage | null>(null)
const failure = ref('')
const words = ref('')
const openedKey = ref<string | null>(null)
const said = ref('')
const list = ref<HTMLElement | null>(null)
const findField = ref<HTMLInputElement | null>(null)
/** The newest change here, which Undo puts back. */
const lastChanged = ref<{ row: FigureRow; size: string } | null>(null)

/** Without a size in the address it is the family's first, its usual full size. */
const FULL_SIZES: Record<string, string> = { violin: '4/4', viola: '406', cello: '4/4', bass: '3/4' }
const size = computed(() => props.size || (FULL_SIZES[props.family] ?? ''))
const groups = computed(() => grouped(page.value?.rows ?? [], words.value))
const opened = computed(() => page.value?.rows.find((row) => keyOfRow(row) === openedKey.value) ?? null)

let asked = 0
async function load(): Promise<void> {
  const mine = ++asked
  failure.value = ''
  try {
    const query = { family: props.family as Family, size: size.value }
    const answer = await answerOf(api.GET('/api/figures', { params: { query } }))
    if (mine === asked) page.value = answer
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === asked) failure.value = error.message
  }
}
watch(
  [() => props.family, size],
  () => {
    lastChanged.value = null
    said.value = ''
    void load()
  },
  { immediate: true },
)

function to(family: string): RouteLocationRaw {
  return { name: 'figures', params: { family } }
}
function open(row: FigureRow): void {
  openedKey.value = keyOfRow(row)
  said.value = ''
}
function close(): void {
  const key = openedKey.value
  openedKey.value = null
  void nextTick(() => {
    const rows = [...(list.value?.querySelectorAll<HTMLElement>('[data-row]') ?? [])]
    rows.find((row) => row.dataset.row === key)?.focus()
  })
}
function changed(row: FigureRow, now: FigurePage, entrySize: string, what: string): void {
  page.value = now
  lastChanged.value = { row, size: entrySize }
  said.value = `${nameOfRow(row)}: ${what}`
  close()
}

async function undo(): Promise<void> {
  const last = lastChanged.value
  if (!last) return
  const { row } = last
  try {
    const body = {
      id: freshId(),
      family: props.family as Family,
      size: last.size,
      measure: row.measure,
      question: row.question,
      school: row.school,
      page_size: size.value,
      }
    page.value = await answerOf(api.POST('/api/figures/undo', { body }))
    said.value = t('put_back', { name_of_row: nameOfRow(row) })
    lastChanged.value = null
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    said.value = error.message
  }
}

/** Up and down go from figure to figure. */
function onArrow(event: KeyboardEvent): void {
  const rows = [...(list.value?.querySelectorAll<HTMLElement>('[data-row]') ?? [])]
  const at = rows.indexOf(event.target as HTMLElement)
  const next = rows[at + (event.key === 'ArrowDown' ? 1 : -1)]
  if (at < 0 || !next) return
  event.preventDefault()
  next.focus()
}

useCommands([
  { letter: 'e', own: true, words: t('find_a_figure'), run: () => void nextTick(() => findField.value?.focus()) },
  { letter: 'u', words: t('undo'), run: () => void undo(), possible: () => lastChanged.value !== null },
])
</script>

<template>
  <PageWithSide :side-label="t('the_opened_figure')" side-first>
    <template #head>
      <h1>{{ t('figures') }}</h1>
      <FamilyTabs :family="family" :to="to" />
      <nav class="sizes" :aria-label="t('sizes')">
        <router-link
          v-for="name in page?.sizes ?? []"
          :key="name"
          :to="{ name: 'figures', params: { family }, query: { size: name } }"
          class="size"
          :class="{ here: name === size }"
          :aria-current="name === size ? 'page' : undefined"
        >
          {{ name }}
        </router-link>
      </nav>
      <label class="only-read" for="find-figure">{{ t('find_a_figure_2') }}</label>
      <input id="find-figure" ref="findField" v-model="words" class="find" type="search" :placeholder="t('find_a_figure')" autocomplete="off" @keydown.esc="words = ''" />
    </template>
    <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
    <p v-else-if="!page" class="failure">{{ t('fetching_the_figures') }}</p>
    <main v-else ref="list" class="list" :aria-label="t('figures_of_a', { family, size })" @keydown.up="onArrow" @keydown.down="onArrow">
      <p v-if="!groups.length" class="none">{{ t('no_figure_here_has', { words }) }} <kbd>Esc</kbd> {{ t('in_the_field_shows_all') }}</p>
      <section v-for="group in groups" :key="group.title" class="group" :aria-label="group.title">
        <h2>{{ group.title }}</h2>
        <button
          v-for="row in group.rows"
          :key="keyOfRow(row)"
          type="button"
          class="plain-button row"
          :class="{ here: keyOfRow(row) === openedKey, hollow: !hasFigure(row), derived: row.follows }"
          :data-row="keyOfRow(row)"
          :aria-expanded="keyOfRow(row) === openedKey"
          @click="open(row)"
        >
          <span class="name">
            <template v-if="row.school_label">{{ row.school_label }}<span v-if="row.label.toLowerCase() !== group.title.toLowerCase()" class="of"> · {{ row.label }}</span></template>
            <template v-else>{{ row.label }}</template>
          </span>
          <BandGlyph v-if="['band', 'floor', 'ceiling'].includes(row.shape)" :row="row" class="glyph" />
          <span class="figure">{{ inWords(row) }}<span v-if="row.own" class="own" :title="t('the_shops_own')" aria-hidden="true">●</span><span v-if="row.own" class="only-read">{{ t('the_shops_own_2') }}</span></span>
        </button>
      </section>
    </main>
    <template v-if="page" #side>
      <p v-if="said" class="said" role="status">
        {{ said }}. <v-btn v-if="lastChanged" size="small" @click="undo">{{ t('undo_2') }}</v-btn>
      </p>
      <FigureEditor
        v-if="opened"
        :key="openedKey ?? ''"
        :row="opened"
        :family="family"
        :size="size"
        @close="close"
        @changed="(now, entrySize, what) => opened && changed(opened, now, entrySize, what)"
      />
      <div v-else class="about">
        <h2>{{ family }} {{ size }}</h2>
        <p>{{ t('what_this_shop_wants_of') }} <b>{{ t('aim') }}</b>{{ t('high_open_a_figure_to') }}</p>
        <p><span class="own">●</span> {{ t('the_shops_own') }}</p>
        <p v-if="page.without_figure">{{ t('places_have_no_figure_nothing', { without_figure: page.without_figure }) }}</p>
        <router-link :to="{ name: 'recipes', params: { family } }">{{ t('recipes_of_the', { family }) }}</router-link>
      </div>
    </template>
  </PageWithSide>
</template>

<style scoped>
.sizes {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
}
.size {
  min-width: var(--hit);
  min-height: var(--hit);
  padding: 11px 8px 0;
  text-align: center;
  color: var(--ink);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
.size.here {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
.find {
  margin-left: auto;
  width: 150px;
  height: 44px;
  padding: 0 10px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: var(--sheet);
  color: var(--ink);
  font: inherit;
}
.list {
  columns: 2;
  column-gap: 12px;
}
.none {
  column-span: all;
  font-size: var(--type-label);
}
.group {
  break-inside: avoid;
  margin-bottom: 12px;
  padding: 8px 14px 10px;
  background: var(--sheet);
  border-radius: var(--corner);
}
h2 {
  font-size: var(--type-text);
  margin: 0 0 2px;
}
.name {
  flex: 1;
}
.glyph {
  flex: none;
}
.row {
  display: flex;
  align-items: center;
  gap: 10px;
  width: 100%;
  min-height: var(--hit);
  border-top: 1px solid var(--hairline);
  line-height: 1.15;
}
.row.here {
  background: var(--note);
  box-shadow: inset 4px 0 0 var(--action);
  padding-left: 10px;
}
.of {
  color: var(--quiet);
}
.figure {
  flex: none;
  min-width: 118px;
  font-size: var(--type-label);
  font-weight: 700;
  white-space: nowrap;
  text-align: right;
}
.derived .figure {
  font-weight: 400;
  color: var(--quiet);
}
.hollow .figure {
  font-weight: 400;
  padding: 2px 8px;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
}
.own {
  margin-left: 6px;
  color: var(--action);
  font-size: var(--type-note);
  vertical-align: 2px;
}
.said {
  padding-bottom: 10px;
  margin: 0 0 10px;
  border-bottom: 1px solid var(--hairline);
}
.about p {
  margin: 0 0 8px;
}
.about a {
  display: inline-block;
  min-height: var(--hit);
  padding-top: 10px;
  color: var(--action);
}
.failure {
  padding: 30px 8px;
  font-size: var(--type-label);
}
kbd {
  padding: 1px 7px;
  font: inherit;
  font-weight: 700;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
@media (max-width: 1100px) {
  .glyph {
    display: none;
  }
}
@media (max-width: 640px) {
  .list {
    columns: 1;
  }
}
</style>
