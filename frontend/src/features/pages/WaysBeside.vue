<script setup lang="ts">
/** The ways to go on, side by side, each with what it takes and brings. */
import type { PageWay } from '@/api'
import { t } from '@/words/pages'

defineProps<{ ways: PageWay[]; decided: string }>()
</script>

<template>
  <section v-if="ways.length" class="ways" :aria-label="t('ways_to_go_on')">
    <article v-for="way in ways" :key="way.label" :class="{ advised: way.recommended, decided: way.outcome !== '' && way.outcome === decided }">
      <h3>{{ way.label }}</h3>
      <p v-if="way.outcome !== '' && way.outcome === decided" class="said">{{ t('decided') }}</p>
      <p v-else-if="way.recommended" class="said">{{ t('recommended') }}</p>
      <p>{{ way.says }}</p>
      <ul v-if="way.takes.length"><li v-for="line in way.takes" :key="line">{{ line }}</li></ul>
    </article>
  </section>
</template>

<style scoped>
.ways {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 8px;
}
article {
  padding: 10px 12px;
  border: 1px solid var(--hairline);
  border-radius: var(--corner);
}
.recommended {
  border-color: var(--ink);
}
.decided {
  border: 3px solid var(--ink);
}
h3 {
  margin: 0;
  font-size: var(--type-label);
  line-height: 1.2;
}
p {
  margin: 4px 0 0;
  line-height: 1.35;
}
.said {
  font-weight: 700;
  color: var(--action);
}
ul {
  margin: 6px 0 0;
  padding-left: 18px;
}
</style>
