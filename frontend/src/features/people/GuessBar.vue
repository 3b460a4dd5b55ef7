<script setup lang="ts">
/** Wrong guesses at a password or PIN since whoever signed in here did so before; said until it was read. */
import { computed, nextTick, watch } from 'vue'
import { ago } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import { t } from '@/words/people'

const atBench = useAtBench()
/** The last line of the audit that was read here. */
const read = useStored('guessesRead', 0)
const unread = computed(() => (atBench.signedIn?.guesses ?? []).filter((one) => one.line > read.value))
const last = computed(() => unread.value[0])
// What is drawn to fit the window is drawn again.
watch(() => !last.value, () => void nextTick(() => window.dispatchEvent(new Event('resize'))))
const whose = computed(() =>
  unread.value.map(({ name, what, count }) => {
    const isOwn = name === atBench.signedIn?.person.name
    if (what === 'pin') return isOwn ? t('guesses_at_your_pin', { count }) : t('guesses_at_the_pin_of', { count, name })
    return isOwn ? t('guesses_at_your_password', { count }) : t('guesses_at_the_password_of', { count, name })
  }),
)
</script>

<template>
  <div v-if="last" class="bar only-screen" role="status">
    <span>{{ t('wrong_guesses', { whose: whose.join('; '), ago: ago(last.last_at) }) }}</span>
    <router-link v-if="atBench.may('sign_off')" class="way" :to="{ name: 'audit' }">{{ t('show_in_the_audit') }}</router-link>
    <button type="button" class="plain-button way" @click="read = last.line">{{ t('guesses_read') }}</button>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 14px;
  margin: 2px 16px 0;
  padding: 0 14px;
  min-height: 36px;
  background: var(--sheet);
  border: 2px solid var(--error);
  border-radius: var(--corner);
}
.way {
  display: inline-flex;
  align-items: center;
  min-height: 36px;
  min-width: var(--hit);
  color: inherit;
  text-decoration: underline;
}
</style>
