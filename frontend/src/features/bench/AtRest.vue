<script setup lang="ts">
/** Why no place is in hand: nothing is read under tension now. */
import { t } from '@/words/bench'

defineProps<{ rests: string }>()
</script>

<template>
  <Teleport to="#in-hand" defer>
    <p class="at-rest" aria-live="polite">{{ t('choose_a_place', { rests }) }}</p>
  </Teleport>
</template>

<style scoped>
.at-rest {
  margin: 0;
  min-height: 46px;
  align-content: center;
}
</style>
