<script setup lang="ts">
/** Nobody is signed in here: name and password, or the first owner of an empty house. */
import { nextTick, onMounted, reactive, ref } from 'vue'
import { Refused } from '@/api'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/people'

/** over : the page, which stays as it is behind it. */
defineProps<{ over?: boolean }>()
const atBench = useAtBench()
const form = reactive({ name: '', password: '', pin: '' })
const faults = ref<Record<string, string>>({})
const isSending = ref(false)
const page = ref<HTMLElement | null>(null)

onMounted(() => void nextTick(() => page.value?.querySelector('input')?.focus()))

async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  faults.value = {}
  try {
    if (atBench.isFirst) await atBench.begin(form.name, form.password, form.pin)
    else await atBench.signIn(form.name, form.password)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    faults.value = Object.keys(error.fields).length && !('' in error.fields) ? error.fields : { password: error.message }
    void nextTick(() => page.value?.querySelector<HTMLInputElement>('.v-input--error input')?.focus())
  } finally {
    isSending.value = false
  }
}
</script>

<template>
  <main ref="page" class="page" :aria-label="t('sign_in')">
    <form class="sheet" @submit.prevent="send">
      <svg viewBox="0 0 360 44" aria-hidden="true" class="string">
        <line x1="0" y1="22" x2="352" y2="22" />
        <path d="M352 12 l5 20 h-10 z" />
        <circle cx="60" cy="22" r="5" />
        <circle cx="140" cy="22" r="5" />
        <circle cx="240" cy="22" r="7" class="open" />
      </svg>
      <h1>{{ atBench.isFirst ? 'A new house' : 'Fidicula' }}</h1>
      <p v-if="over" role="status">{{ t('the_sign_in_has_ended') }}</p>
      <p v-if="atBench.isFirst">{{ t('nobody_is_known_here_yet') }}</p>
      <v-text-field v-model="form.name" :label="t('name')" autocomplete="username" :error-messages="faults.name" />
      <v-text-field
        v-model="form.password"
        :label="t('password')"
        type="password"
        :autocomplete="atBench.isFirst ? 'new-password' : 'current-password'"
        :error-messages="faults.password"
      />
      <v-text-field
        v-if="atBench.isFirst"
        v-model="form.pin"
        :label="t('pin_for_the_bench')"
        type="password"
        inputmode="numeric"
        autocomplete="off"
        :hint="t('four_to_eight_digits_to')"
        persistent-hint
        :error-messages="faults.pin"
      />
      <v-btn type="submit" variant="flat" :loading="isSending">{{ atBench.isFirst ? t('open_the_workshop') : t('sign_in') }}</v-btn>
    </form>
  </main>
</template>

<style scoped>
.page {
  min-height: 100vh;
  display: grid;
  place-content: center;
  border-top: 3px solid var(--ink);
}
.sheet {
  display: grid;
  gap: 14px;
  width: min(420px, 100vw);
  padding: 20px 28px 28px;
  background: var(--sheet);
  border-radius: var(--corner);
}
.string {
  margin: 0 -28px;
  fill: var(--ink);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.open {
  fill: var(--sheet);
  stroke-width: 4;
  stroke: var(--action);
}
h1 {
  font-size: var(--type-reading);
  margin: 0;
}
p {
  margin: 0;
}
</style>
