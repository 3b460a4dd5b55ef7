<script setup lang="ts">
/** A signed visit: by whom, whether its record is as it was sealed, when it comes again, and what was added since. */
import { computed } from 'vue'
import type { Checklist } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { day } from '@/shared/format'
import { t } from '@/words/leaving'

const props = defineProps<{ list: Checklist; mayAdd: boolean; mayTakeBack: boolean; fault: string; add: (id: string, words: string) => Promise<void> }>()
const emit = defineEmits<{ takeBack: [] }>()
const additions = computed(() => props.list.additions ?? [])
const { draft, message, isSending, send } = useFormEntry({ kind: 'addition', isOpenAgainAtOnce: true, of: () => props.list.visit_id, empty: () => ({ words: '' }) })
</script>

<template>
  <section v-if="list.seal" :aria-label="t('signature')">
    <h2>{{ t('signed') }}</h2>
    <p><b>{{ list.seal.signed_by }}</b>, {{ day(list.seal.signed_at) }}</p>
    <p class="seal" :class="list.seal.verdict"><b v-if="list.seal.verdict === 'changed'">{{ t('seal_broken') }}{{ ' ' }}</b>{{ list.seal.says }}</p>
    <p class="hash">{{ t('seal', { short: list.seal.short }) }}</p>
    <p v-if="list.seal.next_check">{{ t('next_check', { when: day(list.seal.next_check), why: list.seal.next_check_why }) }}</p>
    <p v-else>{{ t('no_next_check_is_set') }}</p>
    <p v-if="list.seal.received_by">{{ t('taken_by', { name: list.seal.received_by }) }}</p>
    <svg v-if="list.seal.signature" viewBox="0 0 280 88" width="210" height="66" role="img" :aria-label="t('signature_of_the_owner')"><path :d="list.seal.signature" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" /></svg>
    <h2>{{ t('added_since') }}</h2>
    <p v-if="!additions.length">{{ t('nothing_what_was_sealed_stays') }}</p>
    <ul class="added">
      <li v-for="one in additions" :key="one.id"><b>{{ one.by }}</b>, {{ one.at ? day(one.at) : '' }}: {{ one.words }}</li>
    </ul>
    <form v-if="mayAdd" @submit.prevent="send((id, { words }) => add(id, words))">
      <textarea v-model="draft.words" class="entry" rows="2" maxlength="20000" :aria-label="t('what_is_to_be_added')" />
      <p v-if="message || fault" class="fault" role="alert">{{ message || fault }}</p>
      <div class="acts">
        <v-btn v-if="mayTakeBack" size="small" @click="emit('takeBack')">{{ t('undo_hand_over') }}</v-btn>
        <v-btn type="submit" size="small" :loading="isSending">{{ t('add_to_this_visit') }}</v-btn>
      </div>
    </form>
  </section>
</template>

<style scoped>
h2 {
  margin: var(--space-4) 0 0;
  font-size: var(--type-text);
}
p {
  margin: var(--space-1) 0;
}
.seal.changed {
  padding-left: 10px;
  border-left: 4px solid var(--error);
}
.hash {
  font-size: var(--type-note);
  font-variant-numeric: tabular-nums;
}
.added {
  margin: 0;
  padding: 0;
  list-style: none;
}
textarea {
  padding: 8px;
  font-weight: 400;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px;
  margin-top: 8px;
}
</style>
