<script setup lang="ts">
/** The pages of an instrument, beside each other; the one that is open stands out. */
import { computed } from 'vue'
import { PAGES, pagesOf, routeOf } from './pages'

const props = defineProps<{ ticket: string; family: string; here?: string }>()
const names = computed(() => pagesOf(props.family))
</script>

<template>
  <nav class="pages" aria-label="Pages of this instrument">
    <router-link :to="{ name: 'bench', params: { ticket } }">sheet</router-link>
    <router-link :to="{ name: 'measure', params: { ticket } }">measuring</router-link>
    <router-link v-for="name in names" :key="name" :to="routeOf(ticket, name)" :aria-current="name === here ? 'page' : undefined">{{ PAGES[name] }}</router-link>
  </nav>
</template>

<style scoped>
.pages {
  display: flex;
  flex-wrap: wrap;
  gap: 0 2px;
}
a {
  min-height: 44px;
  padding: 0 10px;
  line-height: 44px;
  color: var(--ink);
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
[aria-current='page'] {
  font-weight: 700;
  text-decoration: none;
  box-shadow: inset 0 -3px 0 var(--ink);
}
</style>
