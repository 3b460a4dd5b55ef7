<script setup lang="ts">
/** What to do about a complaint: what has to be so first, small first steps by school, when to stop, who should not. */
import { computed, nextTick, onMounted, ref } from 'vue'
import type { AdviceView, SoundView } from '@/api'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; mayAct: boolean }>()
const complaint = defineModel<string>({ required: true })
const emit = defineEmits<{ move: [start: { end: string; direction: string }]; done: [] }>()
const PARTS: { title: string; kinds: string[] }[] = [
  { title: t('first'), kinds: ['first'] },
  { title: t('then_one_at_a_time'), kinds: ['strings', 'back', 'move', 'bridge', 'wood'] },
  { title: t('when_to_stop'), kinds: ['stop', 'who'] },
]
const parts = computed(() => PARTS.map(({ title, kinds }) => ({ title, rows: props.view.advice.filter((row) => kinds.includes(row.kind)) })))
const select = ref<HTMLElement | null>(null)
const canMove = (row: AdviceView) => row.kind === 'move' && props.mayAct
onMounted(() => void nextTick(() => select.value?.focus()))
</script>

<template>
  <section :aria-label="t('advice')">
    <h2>{{ t('advice') }}</h2>
    <label>{{ t('the_complaint') }}
      <select ref="select" v-model="complaint"><option value="">{{ t('choose') }}</option><option v-for="(label, key) in view.complaints" :key="key" :value="key">{{ label }}</option></select>
    </label>
    <template v-if="view.complaint && view.complaint === complaint">
      <template v-for="part in parts" :key="part.title">
        <h3>{{ part.title }}</h3>
        <ul>
          <li v-for="row in part.rows" :key="row.says" :class="{ unmet: row.unmet.length }">
            <p><b>{{ row.says }}</b><span v-if="row.school" class="school">{{ row.school }}</span></p>
            <p class="quiet">{{ row.because }}</p>
            <p v-if="row.step">{{ t('first_2', { step: row.step }) }}</p>
            <p v-if="row.unmet.length" class="wait">{{ t('not_so_here', { join: row.unmet.join('; ') }) }}</p>
            <p v-for="line in row.answered" :key="line" class="answered">{{ t('earlier_here', { line }) }}</p>
            <v-btn v-if="canMove(row)" size="small" @click="emit('move', { end: row.end, direction: row.direction })">{{ t('this_move', { end: row.end }) }}</v-btn>
          </li>
        </ul>
      </template>
    </template>
    <div class="ways"><v-btn @click="emit('done')">{{ t('done') }}</v-btn></div>
  </section>
</template>

<style scoped src="./form.css"></style>
<style scoped>
h3 {
  margin: 8px 0 2px;
  font-size: var(--type-text);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 5px 0;
  border-top: 1px solid var(--hairline);
}
p {
  margin: 0;
  line-height: 1.25;
}
.school {
  margin-left: 8px;
  padding: 0 6px;
  border: 1px solid var(--ink);
  border-radius: var(--corner);
}
.wait {
  margin-top: 3px;
  padding: 3px 8px;
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
}
.answered {
  padding-left: 10px;
  border-left: 3px solid var(--action);
}
</style>
