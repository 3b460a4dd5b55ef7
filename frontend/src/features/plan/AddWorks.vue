<script setup lang="ts">
/** What could be planned: what was found, what is often asked for together, and any other work, also what was found underway. */
import type { VisitPlan } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { t } from '@/words/plan'

const props = defineProps<{ ticket: string; plan: VisitPlan; fault: string; addUnderway: (id: string, work: string, because: string) => Promise<void> }>()
const emit = defineEmits<{ add: [works: string[]] }>()
const { draft, message, send } = useFormEntry({ kind: 'add-work', isOpenAgainAtOnce: true, of: () => props.ticket, empty: () => ({ work: '', because: '' }) })
const add = () => void send((id, { work, because }) => props.addUnderway(id, work, because.trim()))
</script>

<template>
  <section v-if="plan.proposals.length" :aria-label="t('proposed')">
    <h2>{{ t('proposed') }} <v-btn v-if="plan.proposals.length > 1" size="small" @click="emit('add', plan.proposals.map((one) => one.work))">{{ t('plan_all_of_these') }}</v-btn></h2>
    <ul>
      <li v-for="one in plan.proposals" :key="one.work">
        <span><b>{{ one.label }}</b><span class="because">{{ one.because }}</span></span>
        <v-btn size="small" :aria-label="t('plan', { work: one.label })" @click="emit('add', [one.work])">{{ t('plan_it') }}</v-btn>
      </li>
    </ul>
  </section>
  <section :aria-label="t('add')">
    <h2>{{ t('add') }}</h2>
    <div class="bundles">
      <v-btn v-for="one in plan.bundles" :key="one.bundle" size="small" :title="one.works.join(', ')" @click="emit('add', [one.bundle])">{{ one.label }}</v-btn>
    </div>
    <form class="other" @submit.prevent="add">
      <label>{{ t('another_work') }}
        <select v-model="draft.work" class="entry"><option value="" /><option v-for="one in plan.jobs" :key="one.work" :value="one.work">{{ one.label }}</option></select>
      </label>
      <label>{{ t('found_underway_because') }} <input v-model="draft.because" class="entry" maxlength="500" /></label>
      <v-btn type="submit" :disabled="!draft.work">{{ t('add_to_the_plan') }}</v-btn>
    </form>
    <p v-if="message || fault" class="fault" role="alert">{{ message || fault }}</p>
  </section>
</template>

<style scoped>
section {
  margin-top: var(--space-4);
}
h2 {
  display: flex;
  align-items: center;
  justify-content: space-between;
  margin: 0;
  font-size: var(--type-text);
  border-bottom: 2px solid var(--ink);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: var(--space-3);
  min-height: 48px;
  border-top: 1px solid var(--hairline);
}
.because {
  display: block;
  font-size: var(--type-note);
  color: var(--quiet);
}
.bundles {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2);
  padding: var(--space-2) 0;
}
.other {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: var(--space-2) var(--space-3);
}
.other label {
  display: grid;
  flex: 1 1 180px;
}
</style>
