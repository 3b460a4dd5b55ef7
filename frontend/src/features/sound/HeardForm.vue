<script setup lang="ts">
/** How it sounds now, in the player's numbers and own words; nothing that was said before stands beside it. */
import { nextTick, onMounted, ref } from 'vue'
import type { SoundView } from '@/api'
import { useFormEntry } from '@/shared/entry'
import type { HeardBody } from './bodies'
import RatingGrid from './RatingGrid.vue'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; leftHanded: boolean; send: (id: string, body: HeardBody) => Promise<void> }>()
const emit = defineEmits<{ done: [] }>()

type Listened = NonNullable<HeardBody['listened']>
interface Draft {
  rated: Record<string, number>
  words: string[]
  /** A word of the player's own that is being typed. */
  own: string
  remark: string
  player: string
  listened: Listened
}
const empty = (): Draft => ({ rated: {}, words: [], own: '', remark: '', player: '', listened: { listener: '', where: '', played: '', bow: '', room: '', distance: '', behind: null, behind_by: '' } })
const { draft, isSending, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'heard', of: () => props.view.ticket, empty, isKept: true })
const grid = ref<InstanceType<typeof RatingGrid> | null>(null)

function withOwn({ words, own }: Draft): string[] {
  const word = own.trim()
  return word && !words.includes(word) ? [...words, word] : words
}
function toggle(word: string): void {
  const { words } = draft.value
  draft.value.words = words.includes(word) ? words.filter((one) => one !== word) : [...words, word]
}
function addOwn(): void {
  draft.value.words = withOwn(draft.value)
  draft.value.own = ''
}
async function write(): Promise<void> {
  await sendEntry((id, typed) => {
    const { rated, remark, player, listened } = typed
    return props.send(id, { rated, words: withOwn(typed), remark, player, listened, after_work: null })
  }, () => emit('done'))
}
function cancel(): void {
  clear()
  emit('done')
}
onMounted(() => {
  begin()
  void nextTick(() => grid.value?.focus())
})
</script>

<template>
  <form :aria-label="t('rate_the_sound')" @submit.prevent="write">
    <h2>{{ t('rate_the_sound') }}</h2>
    <RatingGrid ref="grid" v-model="draft.rated" :names="view.string_names" :left-handed="leftHanded" :faults="faults" />
    <fieldset>
      <legend>{{ t('in_own_words', { s: view.session.player ? `${view.session.player.split(' ')[0]}’s` : t('the_players') }) }}</legend>
      <button v-for="word in [...new Set([...view.session.words, ...draft.words])]" :key="word" type="button" class="word plain-button" :aria-pressed="draft.words.includes(word)" @click="toggle(word)">{{ word }}</button>
      <input v-model="draft.own" class="own" maxlength="40" :placeholder="t('another_word')" :aria-label="t('another_word')" autocomplete="off" @keydown.enter.prevent="addOwn" />
    </fieldset>
    <label>{{ t('said_of_it') }}<textarea v-model="draft.remark" rows="2" maxlength="2000"></textarea></label>
    <label>{{ t('played_by_if_it_is', { yet: view.session.player || t('said_yet') }) }}<input v-model="draft.player" class="own" maxlength="80" autocomplete="off" /></label>
    <details class="listening">
      <summary>{{ t('how_it_was_listened_to') }}</summary>
      <label>{{ t('who_listened') }}<input v-model="draft.listened.listener" class="own" maxlength="80" autocomplete="off" /></label>
      <label>{{ t('from_where') }}<select v-model="draft.listened.where"><option value="">{{ t('not_said') }}</option><option v-for="(label, key) in view.choices.listened_from" :key="key" :value="key">{{ label }}</option></select></label>
      <div class="two">
        <label>{{ t('what_was_played') }}<input v-model="draft.listened.played" class="own" maxlength="80" autocomplete="off" :placeholder="t('a_scale')" /></label>
        <label>{{ t('with_which_bow') }}<input v-model="draft.listened.bow" class="own" maxlength="80" autocomplete="off" /></label>
        <label>{{ t('in_which_room') }}<input v-model="draft.listened.room" class="own" maxlength="80" autocomplete="off" /></label>
        <label>{{ t('how_far_away') }}<input v-model="draft.listened.distance" class="own" maxlength="80" autocomplete="off" /></label>
        <label>{{ t('which_string_falls_behind') }}<select v-model="draft.listened.behind"><option :value="null">{{ t('none') }}</option><option v-for="(name, i) in view.string_names" :key="name" :value="i">{{ name }}</option></select></label>
        <label>{{ t('by_how_much') }}<select v-model="draft.listened.behind_by" :disabled="draft.listened.behind === null"><option value="">{{ t('not_said') }}</option><option v-for="(label, key) in view.choices.behind_by" :key="key" :value="key">{{ label }}</option></select></label>
      </div>
      <p v-for="field in ['where', 'behind', 'behind_by', 'listened']" v-show="faults[field]" :key="field" class="fault" role="alert">{{ faults[field] }}</p>
    </details>
    <p v-if="message && !Object.keys(faults).length" class="fault" role="alert">{{ message }}</p>
    <div class="ways">
      <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
      <v-btn type="submit" variant="flat" :loading="isSending">{{ t('save_rating') }}</v-btn>
    </div>
  </form>
</template>

<style scoped src="./form.css"></style>
<style scoped>
.listening {
  margin: 4px 0 8px;
}
.listening summary {
  min-height: var(--hit);
  padding: 10px 0;
  cursor: pointer;
}
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
