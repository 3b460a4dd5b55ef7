<script setup lang="ts">
/** One school for each question, part by part: what is chosen stands in full ink, what differs is marked. */
import { computed } from 'vue'
import type { QuestionView } from '@/api'
import { t } from '@/words/recipes'

const props = defineProps<{
  questions: QuestionView[]
  chosen: Record<string, string>
  /** What the choice is compared with: where it differs, the row says so. */
  against: Record<string, string>
  againstName: string
}>()
const emit = defineEmits<{ choose: [question: string, school: string] }>()

const PARTS: Record<string, string> = {
  heights: t('heights'),
  nut: t('nut'),
  bridge: t('bridge'),
  post: t('post'),
  tailpiece: t('tailpiece'),
}
const parts = computed(() => {
  const found = new Map<string, QuestionView[]>()
  for (const question of props.questions) found.set(question.part, [...(found.get(question.part) ?? []), question])
  return [...found].map(([part, of]) => ({ part, of }))
})

function labelOf(question: QuestionView, school: string | undefined): string {
  return question.schools.find((choice) => choice.school === school)?.label ?? ''
}
function differs(question: QuestionView): boolean {
  return props.chosen[question.question] !== props.against[question.question]
}
function says(question: QuestionView): string {
  return question.schools.find((choice) => choice.school === props.chosen[question.question])?.says ?? ''
}
</script>

<template>
  <section v-for="group in parts" :key="group.part" class="part" :aria-label="PARTS[group.part] ?? group.part">
    <h2>{{ PARTS[group.part] ?? group.part }}</h2>
    <fieldset v-for="question in group.of" :key="question.question" class="question" :class="{ differs: differs(question) }">
      <legend>{{ question.title }}</legend>
      <div class="schools">
        <label
          v-for="choice in question.schools"
          :key="choice.school"
          class="school"
          :class="{ chosen: chosen[question.question] === choice.school }"
          :title="choice.says"
        >
          <input
            type="radio"
            :name="question.question"
            :value="choice.school"
            :checked="chosen[question.question] === choice.school"
            @change="emit('choose', question.question, choice.school)"
          />
          {{ choice.label }}
        </label>
      </div>
      <p class="says">
        {{ says(question) }}<template v-if="differs(question)"> · <b>{{ againstName }}: {{ labelOf(question, against[question.question]) }}</b></template>
      </p>
    </fieldset>
  </section>
</template>

<style scoped>
.part {
  margin-bottom: 10px;
  padding: 8px 16px 6px;
  background: var(--sheet);
  border-radius: var(--corner);
}
h2 {
  font-size: var(--type-text);
  margin: 0;
}
.question {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  gap: 0 12px;
  margin: 0;
  padding: 4px 0;
  border: 0;
  border-top: 1px solid var(--hairline);
}
legend {
  float: left;
  padding: 10px 0 0;
  line-height: 1.2;
}
.schools {
  display: flex;
  flex-wrap: wrap;
  gap: 0 4px;
}
.school {
  display: flex;
  align-items: center;
  gap: 7px;
  min-height: var(--hit);
  padding: 0 10px 0 6px;
  cursor: pointer;
}
.school.chosen {
  font-weight: 700;
}
.school input {
  width: 18px;
  height: 18px;
  margin: 0;
  accent-color: var(--action);
}
.says {
  grid-column: 2;
  margin: -4px 0 4px 6px;
  color: var(--quiet);
  line-height: 1.25;
}
.says b {
  color: var(--ink);
}
.differs {
  box-shadow: inset 4px 0 0 var(--action);
  margin-left: -12px;
  padding-left: 12px;
}
@media (max-width: 640px) {
  .question {
    grid-template-columns: minmax(0, 1fr);
  }
  .says {
    grid-column: 1;
  }
}
</style>
