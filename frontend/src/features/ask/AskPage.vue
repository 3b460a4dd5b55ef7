<script setup lang="ts">
/** A question about the whole house: typed in a line, completed, said back in plain words, kept by a name. */
import { watchDebounced } from '@vueuse/core'
import { computed, nextTick, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { answerOf, api, Refused, type AskAnswer, type KeptQuestion } from '@/api'
import { useCommands } from '@/shared/commands'
import { useFormEntry } from '@/shared/entry'
import FamilyShape from '@/shared/FamilyShape.vue'
import { freshId } from '@/shared/id'
import { useLatest } from '@/shared/loaded'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/ask'

const AFTER_MS = 120
const route = useRoute()
const router = useRouter()
const atBench = useAtBench()
const words = ref(String(route.query.words ?? ''))
const answer = ref<AskAnswer | null>(null)
const failure = ref('')
const offers = ref<{ line: string; adds: string; kind: string }[]>([])
const picked = ref(-1)
const isTyping = ref(false)
const kept = ref<KeptQuestion[]>([])
const { draft, message, send } = useFormEntry({ kind: 'question', isOpenAgainAtOnce: true, of: () => '', empty: () => ({ name: '' }) })
const fault = ref('')
const line = ref<HTMLInputElement | null>(null)
let asked = 0

/** Only what was asked last is answered. */
async function ask(): Promise<void> {
  const mine = ++asked
  void router.replace({ query: words.value.trim() ? { words: words.value } : {} })
  if (!words.value.trim()) {
    answer.value = null
    failure.value = ''
    return
  }
  try {
    const found = await answerOf(api.GET('/api/ask', { params: { query: { words: words.value } } }))
    if (mine !== asked) return
    answer.value = found
    failure.value = ''
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === asked) failure.value = error.message
  }
}
async function offer(): Promise<void> {
  const typed = words.value
  try {
    const found = await answerOf(api.GET('/api/ask/complete', { params: { query: { words: typed } } }))
    if (typed === words.value) offers.value = found
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    offers.value = []
  }
  picked.value = -1
}
watchDebounced(words, () => void Promise.all([ask(), offer()]), { debounce: AFTER_MS })
watch(() => route.query.words, (now) => {
  if (typeof now === 'string' && now !== words.value) words.value = now
})
/** The latest answer wins: of two changes on their way, either may come first. */
const latest = useLatest()
const load = (): Promise<void> => latest(() => answerOf(api.GET('/api/questions')), (found) => (kept.value = found), (message) => (fault.value = message))
onMounted(() => {
  void load()
  if (words.value) void ask()
  void nextTick(() => line.value?.focus())
})

const isOpen = computed(() => isTyping.value && offers.value.length > 0)
function take(i: number): void {
  const one = offers.value[i]
  if (!one) return
  words.value = one.line
  line.value?.focus()
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Escape' && isOpen.value) isTyping.value = false
  else if (event.key === 'ArrowDown' && offers.value.length) {
    isTyping.value = true
    picked.value = (picked.value + 1) % offers.value.length
  } else if (event.key === 'ArrowUp' && isOpen.value) picked.value = (picked.value - 1 + offers.value.length) % offers.value.length
  else if (event.key === 'Tab' && isOpen.value && !event.shiftKey) take(Math.max(picked.value, 0))
  else if (event.key === 'Enter') {
    if (isOpen.value && picked.value >= 0) take(picked.value)
    else {
      isTyping.value = false
      void ask()
    }
  } else return
  event.preventDefault()
  event.stopPropagation()
}
const keep = () =>
  send(async (id, { name }) => {
    await answerOf(api.PUT('/api/questions', { body: { id, name, words: words.value } }))
    await load()
  })
async function forget(one: KeptQuestion): Promise<void> {
  fault.value = ''
  try {
    await answerOf(api.POST('/api/questions/forget', { body: { id: freshId(), name: one.name } }))
    await load()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
  }
}
useCommands([
  { letter: 'a', own: true, words: t('to_the_question'), run: () => line.value?.focus() },
])
</script>

<template>
  <main class="page" :aria-label="t('ask_the_house')">
    <h1>{{ t('ask_the_house_2') }}</h1>
    <div class="line">
      <input
        ref="line"
        v-model="words"
        class="entry"
        type="text"
        maxlength="300"
        role="combobox"
        aria-autocomplete="list"
        aria-controls="offers"
        :aria-expanded="isOpen"
        :aria-activedescendant="picked >= 0 ? `offer-${picked}` : undefined"
        :aria-label="t('question_about_the_house')"
        :placeholder="t('cellos_with_projection_under_78')"
        autocomplete="off"
        spellcheck="false"
        @input="isTyping = true"
        @keydown="onKey"
        @blur="isTyping = false"
      />
      <ul v-show="isOpen" id="offers" role="listbox" :aria-label="t('what_could_come_next')">
        <li v-for="(one, i) in offers" :id="`offer-${i}`" :key="one.line" role="option" :aria-selected="i === picked" @mousedown.prevent="take(i)">{{ one.adds }} <small>{{ one.kind }}</small></li>
      </ul>
    </div>
    <p v-if="failure" class="fault" role="alert">{{ failure }}</p>
    <template v-else-if="answer">
      <p class="explained" role="status"><b>{{ answer.counted }}</b> · {{ answer.explained.join(' ') }}</p>
      <ul v-if="answer.rows.length" class="rows">
        <li v-for="row in answer.rows" :key="row.ticket">
          <router-link :to="{ name: 'history', params: { ticket: row.ticket } }">
            <FamilyShape :family="row.family" />
            <b>{{ row.ticket }}</b>
            <span>{{ row.family }} {{ row.size }}<template v-if="row.owner"> · {{ row.owner }}</template></span>
            <span class="shows">{{ row.shows.filter(Boolean).join('; ') }}</span>
            <span class="here">{{ row.is_here ? t('in_the_house') : '' }}</span>
          </router-link>
        </li>
      </ul>
      <p v-else>{{ t('nothing_in_the_house_answers') }}</p>
      <form v-if="atBench.may('arrive') && words.trim()" class="keep" @submit.prevent="keep">
        <input v-model="draft.name" class="entry" maxlength="80" :aria-label="t('name_to_keep_this_question')" :placeholder="t('keep_this_question_as')" />
        <v-btn type="submit" :disabled="!draft.name.trim()">{{ t('keep_question') }}</v-btn>
      </form>
    </template>
    <p v-if="fault || message" class="fault" role="alert">{{ fault || message }}</p>
    <section :aria-label="t('kept_questions')">
      <h2>{{ t('kept_questions_2') }}</h2>
      <ul class="kept">
        <li v-for="one in kept" :key="one.name">
          <button type="button" class="plain-button" @click="words = one.words"><b>{{ one.name }}</b> <span>{{ one.words }}</span></button>
          <v-btn v-if="atBench.may('arrive')" size="small" :aria-label="t('take_off_the_list', { name: one.name })" @click="forget(one)">{{ t('take_off') }}</v-btn>
        </li>
      </ul>
      <p class="quiet">{{ t('families_sizes_measures_under_over') }}</p>
    </section>
  </main>
</template>

<style scoped>
.page {
  max-width: 1080px;
  margin: 6px auto 80px;
  padding: 12px 24px 24px;
  background: var(--sheet);
  border-radius: var(--corner);
}
h1 {
  margin: 0 0 8px;
  font-size: var(--type-title);
}
h2 {
  margin: 20px 0 0;
  font-size: var(--type-label);
}
.line {
  position: relative;
}
.line input {
  min-height: 52px;
  font-size: var(--type-title);
}
#offers {
  position: absolute;
  z-index: 3;
  left: 0;
  right: 0;
  margin: 2px 0 0;
  padding: 0;
  list-style: none;
  background: var(--sheet);
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
#offers li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  min-height: var(--hit);
  padding: 0 12px;
  cursor: pointer;
}
#offers [aria-selected='true'] {
  background: var(--ink);
  color: var(--sheet);
}
.explained {
  margin: 12px 0 4px;
}
.rows,
.kept {
  margin: 0;
  padding: 0;
  list-style: none;
}
.rows a {
  display: grid;
  grid-template-columns: 28px 88px minmax(0, 1fr) minmax(0, 1.2fr) 110px;
  gap: 8px;
  align-items: center;
  min-height: var(--hit);
  border-top: 1px solid var(--hairline);
  color: var(--ink);
  text-decoration: none;
}
.rows a:hover {
  background: var(--note);
}
.shows {
  font-weight: 700;
}
.here,
.quiet {
  color: var(--quiet);
}
.keep {
  display: flex;
  gap: 8px;
  max-width: 560px;
  margin-top: 12px;
}
.kept li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  border-top: 1px solid var(--hairline);
}
.kept .plain-button {
  flex: 1;
  min-height: var(--hit);
  text-align: left;
}
@media (max-width: 640px) {
  .page {
    padding: 12px;
  }
  .rows a {
    grid-template-columns: 28px 80px 1fr;
  }
  .shows,
  .here {
    grid-column: 2 / -1;
  }
}
</style>
