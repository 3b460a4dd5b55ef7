<script setup lang="ts">
/** The four families, to go from one's page to another's. */
import { FAMILIES } from '@/api'
import type { RouteLocationRaw } from 'vue-router'
import FamilyShape from './FamilyShape.vue'
import { t } from '@/words/shared'

defineProps<{ family: string; to: (family: string) => RouteLocationRaw }>()
</script>

<template>
  <nav class="families" :aria-label="t('families')">
    <router-link
      v-for="name in FAMILIES"
      :key="name"
      :to="to(name)"
      class="family"
      :class="{ here: name === family }"
      :aria-current="name === family ? 'page' : undefined"
    >
      <FamilyShape :family="name" />{{ name }}
    </router-link>
  </nav>
</template>

<style scoped>
.families {
  display: flex;
  flex-wrap: wrap;
  gap: 0 6px;
}
.family {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: var(--main-button);
  padding: 0 12px 0 6px;
  color: var(--ink);
  text-decoration: none;
  border-bottom: 3px solid transparent;
}
.family.here {
  font-weight: 700;
  border-bottom-color: var(--ink);
}
</style>
