<script setup lang="ts">
/** The post as an object: what it is, what was seen of its fit, and earlier descriptions of it. */
import { nextTick, reactive, ref, watch } from 'vue'
import type { SoundView } from '@/api'
import { day, plain } from '@/shared/format'
import type { PostBody } from './bodies'
import type { Faults } from './useSound'

const props = defineProps<{ view: SoundView; mayAct: boolean; send: (body: PostBody) => Promise<Faults>; takeBack: (id: string) => void; visitId: string }>()
const isEditing = defineModel<boolean>({ required: true })
type Typed = Required<Omit<PostBody, 'fitted_on'>> & { fitted_on: string }
const typed = reactive<Typed>({ length: '', diameter: '', wood: '', grain_mark: '', end_down: '', fitted_on: '', marks_inside: '' })
const faults = ref<Record<string, string>>({})
const form = ref<HTMLFormElement | null>(null)
const words = (value: number | null) => (value === null ? '' : String(value))

watch(isEditing, (editing) => {
  if (!editing) return
  const post = props.view.post
  Object.assign(typed, {
    length: words(post?.length ?? null),
    diameter: words(post?.diameter ?? null),
    wood: post?.wood ?? '',
    grain_mark: post?.grain_mark ?? '',
    end_down: post?.end_down ?? '',
    fitted_on: post?.fitted_on ?? '',
    marks_inside: post?.marks_inside ?? '',
  })
  faults.value = {}
  void nextTick(() => form.value?.querySelector('input')?.focus())
}, { immediate: true })

async function write(): Promise<void> {
  faults.value = (await props.send({ ...typed, fitted_on: typed.fitted_on || null })) ?? {}
  if (!Object.keys(faults.value).length) isEditing.value = false
}
const FIELDS: { key: keyof Typed; label: string; numeric?: boolean }[] = [
  { key: 'length', label: 'length, mm', numeric: true },
  { key: 'diameter', label: 'diameter, mm', numeric: true },
  { key: 'wood', label: 'wood' },
  { key: 'grain_mark', label: 'its mark, and where it looks' },
  { key: 'end_down', label: 'which end is down' },
  { key: 'marks_inside', label: 'marks made inside' },
]
</script>

<template>
  <section aria-label="The post itself">
    <h2>The post itself</h2>
    <form v-if="isEditing" ref="form" aria-label="Describe the post" @submit.prevent="write">
      <template v-for="field in FIELDS" :key="field.key">
        <label>{{ field.label }}<input v-model="typed[field.key]" class="own" maxlength="400" :inputmode="field.numeric ? 'decimal' : undefined" autocomplete="off" /></label>
        <p v-if="faults[field.key]" class="fault" role="alert">{{ faults[field.key] }}</p>
      </template>
      <label>fitted on<input v-model="typed.fitted_on" class="own" type="date" /></label>
      <p v-if="faults['']" class="fault" role="alert">{{ faults[''] }}</p>
      <p class="quiet">Another day of fitting means another post; the earlier one stays on record.</p>
      <div class="ways"><v-btn @click="isEditing = false">Cancel</v-btn><v-btn type="submit" variant="flat">Save post</v-btn></div>
    </form>
    <template v-else>
      <dl v-if="view.post">
        <template v-if="view.post.length !== null"><dt>length</dt><dd>{{ plain(view.post.length) }}</dd></template>
        <template v-if="view.post.diameter !== null"><dt>diameter</dt><dd>{{ plain(view.post.diameter) }}</dd></template>
        <template v-if="view.post.wood"><dt>wood</dt><dd>{{ view.post.wood }}</dd></template>
        <template v-if="view.post.grain_mark"><dt>its mark</dt><dd>{{ view.post.grain_mark }}</dd></template>
        <template v-if="view.post.end_down"><dt>down</dt><dd>{{ view.post.end_down }}</dd></template>
        <template v-if="view.post.fitted_on"><dt>fitted</dt><dd>{{ day(view.post.fitted_on) }} {{ view.post.fitted_on.slice(0, 4) }}</dd></template>
        <template v-if="view.post.marks_inside"><dt>inside</dt><dd>{{ view.post.marks_inside }}</dd></template>
      </dl>
      <p v-else class="quiet">Nothing is said of it yet.</p>
      <p v-if="view.fit.length"><b>Seen of it:</b> {{ view.fit.join(', ') }}.</p>
      <p class="quiet"><router-link :to="{ name: 'look', params: { ticket: view.ticket }, query: { item: 'post' } }">its fit and its ends, with photographs</router-link></p>
      <details v-if="view.earlier_posts.length">
        <summary>{{ view.earlier_posts.length === 1 ? 'one earlier description' : `${view.earlier_posts.length} earlier descriptions` }}</summary>
        <p v-for="post in view.earlier_posts" :key="post.id" class="quiet">
          {{ post.length === null ? '' : `${plain(post.length)} long, ` }}{{ post.diameter === null ? '' : `${plain(post.diameter)} thick, ` }}{{ post.wood }}{{ post.grain_mark ? `; ${post.grain_mark}` : '' }}{{ post.fitted_on ? `; fitted ${day(post.fitted_on)} ${post.fitted_on.slice(0, 4)}` : '' }}. {{ post.by }}
        </p>
      </details>
      <div v-if="mayAct" class="ways">
        <v-btn @click="isEditing = true">{{ view.post ? 'Edit post' : 'Describe post' }}</v-btn>
        <v-btn v-if="view.post?.visit_id === visitId" @click="takeBack(view.post.id)">Undo this entry</v-btn>
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
