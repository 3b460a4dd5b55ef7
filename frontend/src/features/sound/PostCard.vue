<script setup lang="ts">
/** The post as an object: what it is, what was seen of its fit, and earlier descriptions of it. */
import { nextTick, ref, watch } from 'vue'
import type { SoundView } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { day, plain } from '@/shared/format'
import type { PostBody } from './bodies'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; mayAct: boolean; send: (id: string, body: PostBody) => Promise<void>; takeBack: (id: string) => void; visitId: string }>()
const isEditing = defineModel<boolean>({ required: true })
type Typed = Required<Omit<PostBody, 'fitted_on'>> & { fitted_on: string }
const words = (value: number | null | undefined) => (value === null || value === undefined ? '' : String(value))
/** What stands there is edited. */
function asItStands(): Typed {
  const { post } = props.view
  return {
    length: words(post?.length),
    diameter: words(post?.diameter),
    wood: post?.wood ?? '',
    grain_mark: post?.grain_mark ?? '',
    end_down: post?.end_down ?? '',
    fitted_on: post?.fitted_on ?? '',
    marks_inside: post?.marks_inside ?? '',
  }
}
const { draft: typed, message, faults, begin, send: sendEntry, clear } = useFormEntry({ kind: 'post', of: () => props.view.ticket, empty: asItStands })
const form = ref<HTMLFormElement | null>(null)

watch(isEditing, (editing) => {
  if (!editing) return
  begin()
  void nextTick(() => form.value?.querySelector('input')?.focus())
}, { immediate: true })

async function write(): Promise<void> {
  await sendEntry((id, body) => props.send(id, { ...body, fitted_on: body.fitted_on || null }), () => (isEditing.value = false))
}
function cancel(): void {
  clear()
  isEditing.value = false
}
const FIELDS: { key: keyof Typed; label: string; numeric?: boolean }[] = [
  { key: 'length', label: t('length_mm'), numeric: true },
  { key: 'diameter', label: t('diameter_mm'), numeric: true },
  { key: 'wood', label: t('wood') },
  { key: 'grain_mark', label: t('its_mark_and_where_it') },
  { key: 'end_down', label: t('which_end_is_down') },
  { key: 'marks_inside', label: t('marks_made_inside') },
]
</script>

<template>
  <section :aria-label="t('the_post_itself')">
    <h2>{{ t('the_post_itself') }}</h2>
    <form v-if="isEditing" ref="form" :aria-label="t('describe_the_post')" @submit.prevent="write">
      <template v-for="field in FIELDS" :key="field.key">
        <label>{{ field.label }}<input v-model="typed[field.key]" class="own" maxlength="400" :inputmode="field.numeric ? 'decimal' : undefined" autocomplete="off" /></label>
        <p v-if="faults[field.key]" class="fault" role="alert">{{ faults[field.key] }}</p>
      </template>
      <label>{{ t('fitted_on') }}<input v-model="typed.fitted_on" class="own" type="date" /></label>
      <p v-if="message && !Object.keys(faults).length" class="fault" role="alert">{{ message }}</p>
      <p class="quiet">{{ t('another_day_of_fitting_means') }}</p>
      <div class="ways"><v-btn @click="cancel">{{ t('cancel') }}</v-btn><v-btn type="submit" variant="flat">{{ t('save_post') }}</v-btn></div>
    </form>
    <template v-else>
      <dl v-if="view.post">
        <template v-if="view.post.length !== null"><dt>{{ t('length') }}</dt><dd>{{ plain(view.post.length) }}</dd></template>
        <template v-if="view.post.diameter !== null"><dt>{{ t('diameter') }}</dt><dd>{{ plain(view.post.diameter) }}</dd></template>
        <template v-if="view.post.wood"><dt>{{ t('wood') }}</dt><dd>{{ view.post.wood }}</dd></template>
        <template v-if="view.post.grain_mark"><dt>{{ t('its_mark') }}</dt><dd>{{ view.post.grain_mark }}</dd></template>
        <template v-if="view.post.end_down"><dt>{{ t('down') }}</dt><dd>{{ view.post.end_down }}</dd></template>
        <template v-if="view.post.fitted_on"><dt>{{ t('fitted') }}</dt><dd>{{ day(view.post.fitted_on) }} {{ view.post.fitted_on.slice(0, 4) }}</dd></template>
        <template v-if="view.post.marks_inside"><dt>{{ t('inside') }}</dt><dd>{{ view.post.marks_inside }}</dd></template>
      </dl>
      <p v-else class="quiet">{{ t('nothing_is_said_of_it') }}</p>
      <p v-if="view.fit.length"><b>{{ t('seen_of_it') }}</b> {{ view.fit.join(', ') }}.</p>
      <p class="quiet"><router-link :to="{ name: 'look', params: { ticket: view.ticket }, query: { item: 'post' } }">{{ t('its_fit_and_its_ends') }}</router-link></p>
      <details v-if="view.earlier_posts.length">
        <summary>{{ view.earlier_posts.length === 1 ? t('one_earlier_description') : t('earlier_descriptions', { earlier_posts: view.earlier_posts.length }) }}</summary>
        <p v-for="post in view.earlier_posts" :key="post.id" class="quiet">
          {{ post.length === null ? '' : t('long', { mm: plain(post.length) }) + ' ' }}{{ post.diameter === null ? '' : t('thick', { mm: plain(post.diameter) }) + ' ' }}{{ post.wood }}{{ post.grain_mark ? `; ${post.grain_mark}` : '' }}{{ post.fitted_on ? t('fitted_2', { day: day(post.fitted_on), slice: post.fitted_on.slice(0, 4) }) : '' }}. {{ post.by }}
        </p>
      </details>
      <div v-if="mayAct" class="ways">
        <v-btn @click="isEditing = true">{{ view.post ? t('edit_post') : t('describe_post') }}</v-btn>
        <v-btn v-if="view.post?.visit_id === visitId" @click="takeBack(view.post.id)">{{ t('undo_this_entry') }}</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped src="./form.css"></style>
<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 14px;
  margin: 0 0 6px;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
p {
  margin: 0 0 6px;
}
a {
  display: inline-block;
  padding: 8px 0;
  color: var(--action);
}
</style>
