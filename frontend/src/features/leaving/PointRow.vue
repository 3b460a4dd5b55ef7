<script setup lang="ts">
/** One point of the checklist: what is so, what it rests on, and, at pitch, what somebody says of it. */
import { computed, nextTick, ref } from 'vue'
import type { ClosingPoint } from '@/api'
import { StateMark } from '@/features/map'
import { useFormEntry } from '@/shared/entry'
import { day } from '@/shared/format'
import { pictureOf } from '@/shared/pictures'
import { t } from '@/words/leaving'

const props = defineProps<{
  point: ClosingPoint
  ticket: string
  mayCheck: boolean
  fault: string
  /** Throws Refused. */
  notRight: (id: string, words: string) => Promise<void>
}>()
const emit = defineEmits<{ right: []; undo: [] }>()
const MARKS = { right: 'in_order', open: 'work', not_right: 'work', unchecked: 'unknown', not_read: 'unknown', assumed: 'assumed', noted: 'left' } as const
const STATES = { right: '', open: '', not_right: t('not_right'), unchecked: t('not_looked_at'), not_read: '', assumed: '', noted: '' } as const
const mark = computed(() => MARKS[props.point.state])
const isPitch = computed(() => props.point.group === 'pitch')
const isWriting = ref(false)
const { draft, message, isSending, begin, send } = useFormEntry({ kind: 'check', of: () => `${props.ticket}/${props.point.key}`, empty: () => ({ words: props.point.words }) })
const field = ref<HTMLInputElement | null>(null)
const photos = computed(() => props.point.evidence.filter((one) => one.photo))
const lines = computed(() => props.point.evidence.filter((one) => !one.photo))
async function write(): Promise<void> {
  isWriting.value = true
  begin()
  await nextTick()
  field.value?.focus()
}
async function say(): Promise<void> {
  if (!draft.value.words.trim()) return
  await send((id, { words }) => props.notRight(id, words.trim()), () => (isWriting.value = false))
}
/** Digits answer where the row has the focus: 1 right, 2 not right. */
function onKey(event: KeyboardEvent): void {
  if (!isPitch.value || !props.mayCheck || (event.target as HTMLElement).tagName === 'INPUT') return
  if (event.key === '1') emit('right')
  else if (event.key === '2') void write()
  else return
  event.preventDefault()
  event.stopPropagation()
}
</script>

<template>
  <li class="point" :class="{ open: point.is_open }" :tabindex="isPitch && mayCheck ? 0 : undefined" :data-point="point.key" @keydown="onKey">
    <svg viewBox="-12 -12 24 24" width="24" height="24" aria-hidden="true"><StateMark :state="mark" /></svg>
    <div class="what">
      <b>{{ point.label }}</b>
      <span v-if="isPitch && STATES[point.state]" class="state">{{ STATES[point.state] }}</span>
      <span v-else-if="!isPitch" class="state">{{ point.says }}</span>
      <span v-if="point.look && point.state !== 'right'" class="quiet">{{ point.look }}</span>
      <span v-if="point.words" class="says">“{{ point.words }}”</span>
      <ul v-if="lines.length" class="evidence">
        <li v-for="one in lines" :key="one.says">{{ one.says }}</li>
      </ul>
      <span v-if="photos.length" class="photos"><img v-for="one in photos" :key="one.photo" :src="pictureOf(one.photo, 'small')" :alt="one.says" loading="lazy" /></span>
      <span v-if="point.reason" class="says">{{ t('left_open', { reason: point.reason }) }}</span>
      <form v-if="isWriting" class="write" @submit.prevent="say" @keydown.esc.stop.prevent="isWriting = false">
        <input ref="field" v-model="draft.words" class="entry" maxlength="500" :placeholder="t('what_is_wrong')" :aria-label="t('what_is_not_right', { label: point.label })" />
        <v-btn type="submit" size="small" :loading="isSending" :disabled="!draft.words.trim()">{{ t('record') }}</v-btn>
      </form>
      <span v-if="fault || message" class="fault" role="alert">{{ fault || message }}</span>
    </div>
    <div v-if="isPitch && mayCheck" class="acts">
      <button type="button" class="choice" :aria-pressed="point.verdict === 'right'" :aria-label="t('right', { label: point.label })" @click="point.verdict === 'right' ? emit('undo') : emit('right')">{{ t('right_2') }}</button>
      <button type="button" class="choice" :aria-pressed="point.verdict === 'not_right'" :aria-label="t('not_right_2', { label: point.label })" @click="write">{{ t('not_right') }}</button>
    </div>
    <span class="by"><template v-if="point.by">{{ point.by }}<br />{{ point.at ? day(point.at) : '' }}</template></span>
  </li>
</template>

<style scoped>
.point {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto 104px;
  gap: 0 10px;
  align-items: start;
  min-height: 48px;
  padding: 8px 0 6px;
  border-top: 1px solid var(--hairline);
}
.point:focus-visible {
  outline: 2px solid var(--action);
  outline-offset: -2px;
}
.what > span {
  display: block;
}
.what .state {
  display: inline;
  margin-left: 10px;
}
.open .state {
  font-weight: 700;
}
.quiet,
.by {
  color: var(--quiet);
  font-size: var(--type-note);
  line-height: 1.3;
}
.evidence {
  margin: 2px 0 0;
  padding: 0;
  list-style: none;
  font-size: var(--type-note);
  line-height: 1.4;
}
.photos img {
  height: 56px;
  margin: 4px 6px 0 0;
  border-radius: var(--corner);
}
.write {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: 6px;
}
.acts {
  display: flex;
  gap: 4px;
}
.choice {
  min-height: var(--hit);
  min-width: 60px;
  padding: 0 10px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
  background: transparent;
  color: var(--ink);
  font: inherit;
  cursor: pointer;
}
.choice[aria-pressed='true'] {
  background: var(--ink);
  color: var(--sheet);
  font-weight: 700;
}
@media (max-width: 640px) {
  .point {
    grid-template-columns: 28px minmax(0, 1fr);
  }
  .acts,
  .by {
    grid-column: 2;
  }
}
</style>
