<script setup lang="ts">
/** Who has seen what is marked, and signed for it. */
import { watch } from 'vue'
import type { DamageMap, DamageSignature } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { day } from '@/shared/format'
import SignaturePad from '@/shared/SignaturePad.vue'
import { t } from '@/words/damage'

const props = defineProps<{ ticket: string; map: DamageMap; sign: (body: DamageSignature) => Promise<void> }>()
const emit = defineEmits<{ takeBack: [id: string] }>()
const { draft, isSending, message, faults, begin, send } = useFormEntry({ kind: 'damage-signed', of: () => props.ticket, empty: () => ({ who: '', signature: '' }), isOpenAgainAtOnce: true })
watch(() => props.ticket, begin, { immediate: true })
</script>

<template>
  <section :aria-label="t('signatures')">
    <h2>{{ t('signatures') }}</h2>
    <p v-if="!map.signed.length" class="quiet">{{ t('nobody_signed') }}</p>
    <div v-for="one in map.signed" :key="one.id" class="one">
      <svg v-if="one.signature" viewBox="0 0 280 88" aria-hidden="true"><path :d="one.signature" /></svg>
      <p>{{ one.says }}<template v-if="one.at">, {{ day(one.at) }}</template>. <b v-if="!one.is_whole">{{ t('more_since') }}</b></p>
      <v-btn v-if="one.is_here && map.may_mark" size="small" :aria-label="t('undo_signature', { who: one.who })" @click="emit('takeBack', one.id)">{{ t('undo') }}</v-btn>
    </div>
    <form v-if="map.may_mark && map.marks.length" @submit.prevent="send((id, typed) => sign({ id, ...typed }))">
      <p v-if="message" class="fault" role="alert">{{ message }}</p>
      <label>{{ t('who_signs') }}<input v-model="draft.who" class="plain-input" maxlength="80" :placeholder="map.owner" :aria-invalid="'who' in faults" autocomplete="off" /></label>
      <SignaturePad v-model="draft.signature" />
      <v-btn type="submit" :loading="isSending">{{ t('sign_for_it') }}</v-btn>
    </form>
  </section>
</template>

<style scoped>
h2 {
  margin: 14px 0 4px;
  font-size: var(--type-text);
}
.one {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
}
.one p {
  flex: 1 1 260px;
  margin: 4px 0;
}
.one svg {
  width: 120px;
}
.one path {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
form {
  max-width: 420px;
  margin-top: 8px;
}
label input {
  display: block;
  width: 100%;
  margin-bottom: 8px;
}
.quiet {
  color: var(--quiet);
}
</style>
