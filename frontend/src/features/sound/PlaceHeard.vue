<script setup lang="ts">
/** One place of the post: where its ends stood, what was heard there, and the way back to it. */
import { computed } from 'vue'
import type { SoundView } from '@/api'
import { mm } from '@/shared/format'

const props = defineProps<{ view: SoundView; place: number; mayAct: boolean }>()
const emit = defineEmits<{ back: [place: number] }>()

const place = computed(() => props.view.places.find((one) => one.number === props.place) ?? null)
const heard = computed(() =>
  props.view.lines.filter((line) => line.place === props.place).flatMap((line) => line.heard.map((one) => ({ ...one, after: line.is_new_place ? '' : line.says }))),
)
</script>

<template>
  <section v-if="place" class="place" :aria-label="`Place ${place.number}`">
    <h3>Place {{ place.number }}<template v-if="place.is_now">, where it {{ view.fallen ? 'last stood' : 'stands now' }}</template><template v-if="place.is_best">, the best so far</template></h3>
    <p>{{ place.says }}</p>
    <ul class="ends">
      <li v-for="one in place.ends" :key="one.end">
        <b>{{ one.end }}</b>
        <template v-if="one.setback !== null">{{ ' ' }}{{ mm(one.setback, 1) }} behind the foot<template v-if="one.inset !== null">, {{ mm(one.inset, 1) }} inside its edge</template>, {{ one.known }} ± {{ mm(one.known_to, 1) }}</template>
        <template v-else>{{ ' ' }}nobody knows</template>
      </li>
    </ul>
    <p v-for="one in heard" :key="one.id" class="heard" :class="{ other: one.is_other }">
      <template v-if="one.after">{{ one.after }}: </template><b v-if="one.mean !== null">{{ one.mean.toFixed(1) }} of 5</b>
      <template v-if="one.words.length">{{ ' ' }}{{ one.words.map((word) => `“${word}”`).join(', ') }}</template>
      <template v-if="one.remark">{{ ' ' }}{{ one.remark }}</template>{{ ' ' }}<span class="by">{{ one.player }}<template v-if="one.is_other">, kept apart</template></span>
    </p>
    <p v-if="!heard.length" class="quiet">Nothing was heard here.</p>
    <p v-if="place.incomparable.length" class="broken">It no longer compares with now: {{ place.incomparable.join(', ') }}.<template v-if="place.from_other_foot"> It was told from where the foot stood then.</template></p>
    <template v-if="!place.is_now">
      <p v-if="place.way_back"><b>The way back:</b> {{ place.way_back }}.</p>
      <v-btn v-if="place.way_back && mayAct" @click="emit('back', place.number)">Back to place {{ place.number }}</v-btn>
      <p v-if="!place.way_back" class="quiet">The way back: {{ view.may_go_back || 'this place was never gauged' }}.</p>
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
