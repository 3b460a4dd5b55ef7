<script setup lang="ts">
/** The variants beside each other: what each comes to, and what of the instrument's value that takes. */
import { computed } from 'vue'
import type { PlanVariant } from '@/api'
import type { Grade } from './usePlan'
import { t } from '@/words/plan'

const props = defineProps<{ variants: PlanVariant[]; value: string; tax: string; discount: string }>()
const chosen = defineModel<Grade>({ required: true })
const shown = computed(() => props.variants.find((one) => one.grade === chosen.value) ?? null)
const range = (one: PlanVariant) => (one.low.total === one.high.total ? '' : t('to', { low: one.low.total, high: one.high.total }))
</script>

<template>
  <fieldset class="variants">
    <legend>{{ t('what_it_comes_to') }}</legend>
    <label v-for="one in variants" :key="one.grade" :class="{ chosen: one.grade === chosen }">
      <input v-model="chosen" type="radio" :value="one.grade" />
      <span class="label">{{ one.label }}<span class="range">{{ one.works.length ? range(one) : t('nothing_of_it_is_planned') }}</span></span>
      <b v-if="one.works.length">{{ one.usual.total }}</b>
    </label>
  </fieldset>
  <dl v-if="shown && shown.works.length" class="sums">
    <dt>{{ t('works_and_parts') }}</dt><dd>{{ shown.usual.net }}</dd>
    <template v-if="discount"><dt>{{ discount }}</dt><dd>−{{ shown.usual.discount }}</dd></template>
    <dt>{{ t('tax', { tax }) }}</dt><dd>{{ shown.usual.tax }}</dd>
    <dt>{{ t('in_all') }}</dt><dd><b>{{ shown.usual.total }}</b></dd>
    <dt>{{ t('of_it_beforehand') }}</dt><dd>{{ shown.deposit }}</dd>
  </dl>
  <p v-if="shown?.against" class="against" :class="shown.weight">{{ shown.against }}</p>
  <p v-else class="quiet">{{ value }}</p>
</template>

<style scoped>
.variants {
  margin: 0;
  padding: 0;
  border: 0;
}
legend {
  padding: 0;
  font-size: var(--type-title);
  font-weight: 700;
}
.variants label {
  display: grid;
  grid-template-columns: 28px minmax(0, 1fr) auto;
  align-items: center;
  min-height: 48px;
  border-top: 1px solid var(--hairline);
}
.label {
  line-height: 1.2;
}
.range {
  display: block;
  font-size: var(--type-note);
  color: var(--quiet);
}
.variants b {
  font-size: var(--type-label);
}
.chosen {
  box-shadow: inset 0 -3px 0 var(--ink);
}
.sums {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px var(--space-3);
  margin: var(--space-3) 0;
}
dd {
  margin: 0;
  text-align: right;
}
.against {
  margin: var(--space-3) 0;
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.advise_against {
  font-weight: 700;
}
.quiet {
  color: var(--quiet);
}
</style>
