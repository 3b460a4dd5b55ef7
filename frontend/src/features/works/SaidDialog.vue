<script setup lang="ts">
/** What was filed at each slot, turned at each wheel, or how the strings were: what was advised stands there already. */
import { computed, watch } from 'vue'
import type { BenchSheet } from '@/api'
import { useHouse } from '@/features/rail'
import { useFormEntry } from '@/shared/entry'
import { focusFirstInDialog } from '@/shared/focus'
import { fieldsOf, type AskedWork, type WorkSaid } from './said'
import { t } from '@/words/works'

const props = defineProps<{
  sheet: BenchSheet
  work: AskedWork
  /** Throws Refused. */
  record: (work: AskedWork, said: WorkSaid, id: string) => Promise<void>
}>()
const isOpen = defineModel<boolean>({ required: true })
const house = useHouse()
const WORDS = {
  nut_filed: { title: t('what_was_filed'), says: t('filed_at_each_slot'), save: t('save_what_was_filed') },
  adjusters_turned: { title: t('wheels_turned'), says: t('turned_at_each_wheel'), save: t('save_what_was_turned') },
  post_set: { title: t('post_set'), says: t('how_the_strings_were'), save: t('save_post_set') },
} as const
const words = computed(() => WORDS[props.work])
const caution = computed(() => house.choices?.works.find((one) => one.key === props.work)?.caution ?? '')
const tensions = computed(() => house.choices?.tensions ?? [])
const fields = computed(() => fieldsOf(props.work, props.sheet))
const empty = () => ({ by: Object.fromEntries(fields.value.map(({ at, advised }) => [at, advised])) as Record<number, string>, tension: '' })
const { draft, begin, send, clear } = useFormEntry({ kind: 'work-said', of: () => `${props.sheet.instrument.ticket}/${props.work}`, empty })

watch(isOpen, (open) => {
  if (open) begin()
})
function saidOf({ by, tension }: ReturnType<typeof empty>): WorkSaid {
  const each = fields.value.map(({ at }) => at).sort((a, b) => a - b).map((at) => by[at]?.trim() ?? '')
  return { nut_filed: { filed: each }, adjusters_turned: { turned: each }, post_set: { tension } }[props.work]
}
function done(): void {
  const { work } = props
  isOpen.value = false
  void send((id, typed) => props.record(work, saidOf(typed), id))
}
function cancel(): void {
  clear()
  isOpen.value = false
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="560" @after-enter="focusFirstInDialog">
    <v-card>
      <v-card-title tag="h2">{{ words.title }}</v-card-title>
      <v-card-text>
        <form id="work-said" class="fields" data-first @submit.prevent="done">
          <label v-for="one in fields" :key="one.at">{{ one.name }}<input v-model="draft.by[one.at]" class="plain-input" :inputmode="work === 'nut_filed' ? 'decimal' : 'text'" maxlength="20" autocomplete="off" /></label>
          <template v-if="work === 'post_set'">
            <label v-for="one in tensions" :key="one.key" class="choice"><input v-model="draft.tension" type="radio" name="tension" :value="one.key" />{{ one.label }}</label>
          </template>
        </form>
        <p>{{ words.says }}</p>
        <p v-if="caution" class="caution">{{ caution }}</p>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn @click="cancel">{{ t('cancel') }}</v-btn>
        <v-btn variant="flat" type="submit" form="work-said">{{ words.save }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
.fields label {
  font-size: var(--type-target);
  font-weight: 700;
}
.fields input.plain-input {
  display: block;
  width: 110px;
  font-size: var(--type-target);
}
.fields .choice {
  display: flex;
  flex: 1 1 200px;
  gap: 10px;
  align-items: center;
  min-height: var(--hit);
  font-weight: 400;
  font-size: var(--type-text);
}
.choice input {
  width: 18px;
  height: 18px;
  accent-color: var(--action);
}
p {
  margin: 12px 0 0;
}
.caution {
  padding-left: 10px;
  border-left: 4px solid var(--ink);
}
.actions {
  padding: 8px 24px 20px;
}
</style>
