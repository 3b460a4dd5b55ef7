<script setup lang="ts">
/** One place of the post: where its ends stood, what was heard there, and the way back to it. */
import { computed } from 'vue'
import type { SoundView } from '@/api'
import { mm, up } from '@/shared/format'
import { t } from '@/words/sound'

const props = defineProps<{ view: SoundView; place: number; mayAct: boolean }>()
const emit = defineEmits<{ back: [place: number] }>()

const place = computed(() => props.view.places.find((one) => one.number === props.place) ?? null)
const heard = computed(() =>
  props.view.lines.filter((line) => line.place === props.place).flatMap((line) => line.heard.map((one) => ({ ...one, after: line.is_new_place ? '' : line.says }))),
)
</script>

<template>
  <section v-if="place" class="place" :aria-label="t('place_2', { number: place.number })">
    <h3>{{ t('place_2', { number: place.number }) }}<template v-if="place.is_now">{{ t('where_it', { now: view.fallen ? t('last_stood') : t('stands_now') }) }}</template><template v-if="place.is_best">{{ t('the_best_so_far') }}</template></h3>
    <p>{{ place.says }}</p>
    <ul class="ends">
      <li v-for="one in place.ends" :key="one.end">
        <b>{{ one.end }}</b>
        <template v-if="one.setback !== null">{{ t('behind_the_foot', { value: ' ', mm: mm(one.setback, 1) }) }}<template v-if="one.inset !== null">{{ t('inside_its_edge', { mm: mm(one.inset, 1) }) }}</template>, {{ one.known }} ±{{ up(one.known_to, 1) }}</template>
        <template v-else>{{ t('nobody_knows', { value: ' ' }) }}</template>
      </li>
    </ul>
    <p v-for="one in heard" :key="one.id" class="heard" :class="{ other: one.is_other }">
      <template v-if="one.after">{{ one.after }}: </template><b v-if="one.mean !== null">{{ t('of_5', { mean: one.mean.toFixed(1) }) }}</b>
      <template v-if="one.words.length">{{ ' ' }}{{ one.words.map((word) => `“${word}”`).join(', ') }}</template>
      <template v-if="one.remark">{{ ' ' }}{{ one.remark }}</template><template v-if="one.manner"> ({{ one.manner }})</template>{{ ' ' }}<span class="by">{{ one.player }}<template v-if="one.is_other">{{ t('kept_apart') }}</template></span>
    </p>
    <p v-if="!heard.length" class="quiet">{{ t('nothing_was_heard_here') }}</p>
    <p v-if="place.incomparable.length" class="broken">{{ t('it_no_longer_compares_with', { join: place.incomparable.join(', ') }) }}<template v-if="place.from_other_foot">{{ ' ' }}{{ t('it_was_told_from_where') }}</template></p>
    <template v-if="!place.is_now">
      <p v-if="place.way_back"><b>{{ t('the_way_back') }}</b> {{ place.way_back }}.</p>
      <v-btn v-if="place.way_back && mayAct" @click="emit('back', place.number)">{{ t('back_to_place', { number: place.number }) }}</v-btn>
      <p v-if="!place.way_back" class="quiet">{{ t('the_way_back_2', { gauged: view.may_go_back || t('this_place_was_never_gauged') }) }}</p>
    </template>
  </section>
</template>

<style scoped>
.place {
  padding: 8px 14px 12px;
  border: 1.5px solid var(--ink);
  border-radius: var(--corner);
}
h3 {
  margin: 0;
  font-size: var(--type-text);
}
p {
  margin: 4px 0 0;
}
.ends {
  margin: 4px 0 0;
  padding: 0;
  list-style: none;
}
.heard {
  padding-left: 10px;
  border-left: 3px solid var(--action);
}
.heard.other {
  border-left-style: dashed;
}
.by,
.quiet {
  color: var(--quiet);
}
.broken {
  padding: 4px 10px;
  border: 2px dashed var(--ink);
  border-radius: var(--corner);
}
.v-btn {
  margin-top: 8px;
}
</style>
