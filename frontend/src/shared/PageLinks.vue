<script setup lang="ts">
/** The pages of an instrument, beside each other; the one that is open stands out. */
import { computed } from 'vue'
import type { PartView } from '@/api'
import { PAGES, pagesOf, PART_OF, routeOf, type PageName } from './pages'

const props = defineProps<{ ticket: string; family: string; here?: string; parts?: PartView[] }>()
const names = computed(() => pagesOf(props.family))
/** What is open at the part that a page is about; empty where nothing is. */
function open(name: PageName): string {
  const part = props.parts?.find((one) => one.part === PART_OF[name])
  return part && ['decide', 'work', 'read_again'].includes(part.state) ? part.says : ''
}
</script>

<template>
  <nav class="pages" aria-label="Pages of this instrument">
    <router-link :to="{ name: 'bench', params: { ticket } }">sheet</router-link>
    <router-link :to="{ name: 'measure', params: { ticket } }">measuring</router-link>
    <router-link v-for="name in names" :key="name" :to="routeOf(ticket, name)" :aria-current="name === here ? 'page' : undefined" :title="open(name) || undefined">{{ PAGES[name] }}<span v-if="open(name)" class="open" :aria-label="`, ${open(name)}`">•</span></router-link>
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
.open {
  margin-left: 4px;
  color: var(--above);
  font-weight: 700;
}
[aria-current='page'] {
  font-weight: 700;
  text-decoration: none;
  box-shadow: inset 0 -3px 0 var(--ink);
}
</style>
