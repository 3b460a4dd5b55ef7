<script setup lang="ts">
/** What the shop has: blanks, post stock, strings and small parts, with their counts and prices; and its rates and limits. */
import { computed, nextTick, ref } from 'vue'
import type { StockItem } from '@/api'
import { useCommands } from '@/shared/commands'
import PageWithSide from '@/shared/PageWithSide.vue'
import { useAtBench } from '@/shared/person'
import ItemPanel from './ItemPanel.vue'
import NewItem from './NewItem.vue'
import ShopSettings from './ShopSettings.vue'
import { useStock } from './useStock'
import { t } from '@/words/drawers'

const props = defineProps<{ tab: string; kind: string }>()
const atBench = useAtBench()
const { words, kind, items, kinds, isLoaded, failure, load } = useStock(props.kind)
const openedId = ref('')
const opened = computed(() => items.value.find((one) => one.id === openedId.value) ?? null)
const newOpen = ref(false)
const findField = ref<HTMLInputElement | null>(null)
const isSettings = computed(() => props.tab === 'rates')
const low = computed(() => items.value.filter((one) => one.is_low).length)
async function added(item: StockItem): Promise<void> {
  await load()
  openedId.value = item.id
}
function changed(item: StockItem): void {
  items.value = items.value.map((one) => (one.id === item.id ? item : one))
}
useCommands([
  { letter: 'e', own: true, words: t('find_in_the_drawers'), run: () => void nextTick(() => findField.value?.focus()), possible: () => !isSettings.value },
  { letter: 'a', own: true, words: t('put_something_in'), run: () => (newOpen.value = true), possible: () => atBench.may('recipes') && !isSettings.value },
])
</script>

<template>
  <PageWithSide :side-label="t('the_opened_item')">
    <template #head>
      <h1>{{ t('drawers') }}</h1>
      <nav :aria-label="t('stock_and_prices')">
        <router-link :to="{ name: 'drawers' }" :aria-current="isSettings ? undefined : 'page'">{{ t('what_is_here') }}</router-link>
        <router-link :to="{ name: 'drawers', params: { tab: 'rates' } }" :aria-current="isSettings ? 'page' : undefined">{{ t('rates_and_limits_2') }}</router-link>
      </nav>
      <template v-if="!isSettings">
        <label>{{ t('kind') }} <select v-model="kind" class="entry"><option value="">{{ t('all') }}</option><option v-for="one in kinds" :key="one.kind" :value="one.kind">{{ one.label }}</option></select></label>
        <input ref="findField" v-model="words" class="entry" type="search" :placeholder="t('find')" :aria-label="t('find_in_the_drawers_2')" @keydown.esc="words = ''" />
        <v-btn v-if="atBench.may('recipes')" @click="newOpen = true">{{ t('put_something_in_2') }}</v-btn>
      </template>
    </template>
    <main class="list" :aria-label="t('drawers')">
      <ShopSettings v-if="isSettings" />
      <template v-else>
        <p v-if="failure" role="alert">{{ failure }}</p>
        <p v-else-if="isLoaded && !items.length" class="none">
          {{ words ? t('nothing_here_has', { words }) : t('nothing_is_in_these_drawers') }}
          <v-btn v-if="!words && atBench.may('recipes')" variant="flat" @click="newOpen = true">{{ t('put_the_first_thing_in') }}</v-btn>
        </p>
        <p v-if="low" role="status"><b>{{ t('other', { count: low }) }}</b></p>
        <table v-if="items.length">
          <thead><tr><th>{{ t('what') }}</th><th>{{ t('for_2') }}</th><th>{{ t('figure') }}</th><th>{{ t('where') }}</th><th class="right">{{ t('free') }}</th><th class="right">{{ t('price') }}</th></tr></thead>
          <tbody>
            <tr v-for="one in items" :key="one.id" :class="{ here: one.id === openedId, low: one.is_low }">
              <td><button type="button" class="plain-button open" :aria-expanded="one.id === openedId" @click="openedId = one.id"><b>{{ one.label }}</b><span>{{ one.kind_label }}</span></button></td>
              <td>{{ one.family || t('any') }}</td>
              <td>{{ one.figure }}</td>
              <td>{{ one.place }}</td>
              <td class="right"><b>{{ one.free }}</b><span v-if="one.reserved">{{ t('of', { on_hand: one.on_hand }) }}</span><span v-if="one.is_low">▼ {{ t('reorder_2') }}</span></td>
              <td class="right">{{ one.price || t('none_yet') }}</td>
            </tr>
          </tbody>
        </table>
      </template>
    </main>
    <template v-if="!isSettings" #side>
      <ItemPanel v-if="opened" :item="opened" :may-act="atBench.may('measure')" @changed="changed" />
      <p v-else>{{ t('open_an_item_to_count') }}</p>
    </template>
    <NewItem v-model="newOpen" :kinds="kinds" :kind="kind" @added="added" />
  </PageWithSide>
</template>

<style scoped src="../../shared/list.css"></style>
<style scoped>
nav {
  display: flex;
  gap: 4px;
}
nav a {
  min-height: var(--hit);
  padding: 11px 8px 0;
  color: var(--ink);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
nav [aria-current='page'] {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
.list {
  padding: 8px 18px 18px;
  background: var(--sheet);
  border-radius: var(--corner);
  min-width: 0;
}
.entry {
  width: auto;
}
.open {
  width: 100%;
  min-height: 48px;
  text-align: left;
}
td span,
.open span {
  display: block;
  font-size: var(--type-note);
  color: var(--quiet);
}
.low td span {
  color: var(--ink);
}
.here {
  background: var(--note);
}
.right {
  text-align: right;
}
.none {
  font-size: var(--type-label);
}
@media (max-width: 640px) {
  td:nth-child(2),
  th:nth-child(2),
  td:nth-child(4),
  th:nth-child(4) {
    display: none;
  }
}
</style>
