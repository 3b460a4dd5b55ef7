<script setup lang="ts">
/** One visit as it went: why it came, what was done, decided, found and heard, its photographs, its seal. */
import { computed } from 'vue'
import type { HistoryVisit, SealView } from '@/api'
import { dayAndYear } from '@/shared/format'
import { pictureOf } from '@/shared/pictures'
import { t } from '@/words/history'

const props = defineProps<{ visit: HistoryVisit; seals: SealView[]; ticket: string; isNow: boolean }>()
const KINDS = {
  works: t('done'),
  strings: t('strings'),
  post: t('sound_post'),
  decided: t('decided'),
  found: t('found'),
  heard: t('heard'),
} as const
const groups = computed(() =>
  (Object.keys(KINDS) as (keyof typeof KINDS)[])
    .map((kind) => ({ kind, lines: props.visit.entries.filter((entry) => entry.kind === kind) }))
    .filter((group) => group.lines.length),
)
const seal = computed(() => props.seals.find((one) => one.visit_id === props.visit.id && one.verdict !== 'opened_again'))
</script>

<template>
  <article :aria-label="t('visit_of', { when: dayAndYear(visit.opened_at) })">
    <h2>{{ dayAndYear(visit.opened_at) }} · {{ visit.label }}<template v-if="isNow"> · {{ t('this_visit') }}</template></h2>
    <p v-if="visit.complaint">“{{ visit.complaint }}”</p>
    <p class="quiet">{{ t('one_other', { count: visit.readings }) }}<template v-if="visit.closed_at"> · {{ t('handed_over_by', { when: dayAndYear(visit.closed_at), name: visit.closed_by }) }}</template></p>
    <p v-if="seal" class="seal" :class="seal.verdict"><b v-if="seal.verdict === 'changed'">{{ t('seal_broken') }}{{ ' ' }}</b>{{ seal.says }}</p>
    <section v-for="group in groups" :key="group.kind">
      <h3>{{ KINDS[group.kind] }}</h3>
      <ul><li v-for="(line, i) in group.lines" :key="i">{{ line.says }} <span class="quiet">{{ line.by }}</span></li></ul>
    </section>
    <section v-if="visit.photos.length">
      <h3>{{ t('photographs') }}</h3>
      <div class="photos"><a v-for="photo in visit.photos" :key="photo.id" :href="pictureOf(photo.id)" target="_blank"><img :src="pictureOf(photo.id, 'small')" :alt="photo.words || photo.label" loading="lazy" /><span>{{ photo.words || photo.label }}</span></a></div>
    </section>
    <section v-if="visit.cost || visit.documents.length">
      <h3>{{ t('cost') }}</h3>
      <p v-if="visit.cost">{{ visit.cost }}</p>
      <ul>
        <li v-for="one in visit.documents" :key="one.id"><router-link :to="{ name: 'document', params: { ticket, document: one.id } }">{{ one.says }}</router-link><ul><li v-for="(line, i) in one.lines" :key="i" class="quiet">{{ line }}</li></ul></li>
      </ul>
    </section>
    <section v-if="visit.additions.length">
      <h3>{{ t('added_since') }}</h3>
      <ul><li v-for="(one, i) in visit.additions" :key="i">{{ one.says }} <span class="quiet">{{ one.by }}</span></li></ul>
    </section>
    <p v-if="isNow"><router-link :to="{ name: 'bench', params: { ticket } }">{{ t('bench_sheet') }}</router-link> · <router-link :to="{ name: 'sound', params: { ticket } }">{{ t('sound_and_post') }}</router-link> · <router-link :to="{ name: 'leave', params: { ticket } }">{{ t('hand_over') }}</router-link></p>
  </article>
</template>

<style scoped>
h2 {
  margin: 0;
  font-size: var(--type-label);
}
h3 {
  margin: 10px 0 0;
  font-size: var(--type-text);
}
p {
  margin: 2px 0;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 2px 0;
}
.quiet {
  color: var(--quiet);
  font-size: var(--type-note);
}
.seal.changed {
  padding-left: 10px;
  border-left: 4px solid var(--error);
}
.photos {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(120px, 1fr));
  gap: 8px;
}
.photos img {
  width: 100%;
  border-radius: var(--corner);
}
.photos a {
  color: var(--ink);
  font-size: var(--type-note);
}
a {
  color: var(--action);
}
</style>
