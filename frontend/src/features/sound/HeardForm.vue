<script setup lang="ts">
/** How it sounds now, in the player's numbers and own words; nothing that was said before stands beside it. */
import { nextTick, onMounted, reactive, ref } from 'vue'
import type { SoundView } from '@/api'
import { useStored } from '@/shared/stored'
import type { HeardBody } from './bodies'
import RatingGrid from './RatingGrid.vue'
import type { Faults } from './useSound'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; leftHanded: boolean; send: (body: HeardBody) => Promise<Faults> }>()
const emit = defineEmits<{ done: [] }>()

interface Draft {
  rated: Record<string, number>
  words: string[]
  remark: string
  player: string
}
const empty = (): Draft => ({ rated: {}, words: [], remark: '', player: '' })
/** Kept in this browser until it is written down: nothing said is lost by leaving. */
const drafts = useStored<Record<string, Draft>>('heard', {})
const draft = reactive<Draft>({ ...empty(), ...drafts.value[props.view.ticket] })
const own = ref('')
const faults = ref<Record<string, string>>({})
const isSending = ref(false)
const grid = ref<InstanceType<typeof RatingGrid> | null>(null)

function keep(): void {
  drafts.value = { ...drafts.value, [props.view.ticket]: { ...draft } }
}
function forget(): void {
  drafts.value = Object.fromEntries(Object.entries(drafts.value).filter(([ticket]) => ticket !== props.view.ticket))
  Object.assign(draft, empty())
  own.value = ''
}
function toggle(word: string): void {
  draft.words = draft.words.includes(word) ? draft.words.filter((one) => one !== word) : [...draft.words, word]
  keep()
}
function addOwn(): void {
  const word = own.value.trim()
  if (word && !draft.words.includes(word)) draft.words = [...draft.words, word]
  own.value = ''
  keep()
}
async function write(): Promise<void> {
  addOwn()
  isSending.value = true
  const wrong = await props.send({ ...draft, after_work: null })
  isSending.value = false
  faults.value = wrong ?? {}
  if (wrong) return
  forget()
  emit('done')
}
onMounted(() => void nextTick(() => grid.value?.focus()))
</script>

<template>
  <form :aria-label="t('rate_the_sound')" @submit.prevent="write">
    <h2>{{ t('rate_the_sound') }}</h2>
    <RatingGrid ref="grid" v-model="draft.rated" :names="view.string_names" :left-handed="leftHanded" :faults="faults" @update:model-value="keep" />
    <fieldset>
      <legend>{{ t('in_own_words', { s: view.session.player ? `${view.session.player.split(' ')[0]}’s` : t('the_players') }) }}</legend>
      <button v-for="word in [...new Set([...view.session.words, ...draft.words])]" :key="word" type="button" class="word plain-button" :aria-pressed="draft.words.includes(word)" @click="toggle(word)">{{ word }}</button>
      <input v-model="own" class="own" maxlength="40" :placeholder="t('another_word')" :aria-label="t('another_word')" autocomplete="off" @keydown.enter.prevent="addOwn" />
    </fieldset>
    <label>{{ t('said_of_it') }}<textarea v-model="draft.remark" rows="2" maxlength="2000" @input="keep"></textarea></label>
    <label>{{ t('played_by_if_it_is', { yet: view.session.player || t('said_yet') }) }}<input v-model="draft.player" class="own" maxlength="80" autocomplete="off" @input="keep" /></label>
    <div class="ways">
      <v-btn @click="emit('done')">{{ t('cancel') }}</v-btn>
      <v-btn type="submit" variant="flat" :loading="isSending">{{ t('save_rating') }}</v-btn>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.word {
  min-height: var(--hit);
  margin: 0 8px 8px 0;
  padding: 4px 12px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.word[aria-pressed='true'] {
  background: var(--chosen);
  color: var(--on-chosen);
}
</style>
