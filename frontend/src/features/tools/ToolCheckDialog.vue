<script setup lang="ts">
/** A tool held to a length that is known: what it read, what that says, and what earlier checks found. */
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue'
import { answerOf, api, type ToolChecked } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { focusFirstInDialog } from '@/shared/focus'
import FormDialog from '@/shared/FormDialog.vue'
import { ago, mm, until } from '@/shared/format'
import { useLoaded } from '@/shared/loaded'
import { t } from '@/words/tools'
import { useToolCheck } from './toolCheck'

const OFTEN = 5
const KNOWN = '5'
const { tool, isOpen } = useToolCheck()
const { found: tools, failure, load } = useLoaded(() => (isOpen.value ? 'open' : ''), () => answerOf(api.GET('/api/tools')))
const chosen = computed(() => tools.value?.find((one) => one.tool === tool.value) ?? null)
/** What the last check of this dialog found. */
const told = ref<ToolChecked | null>(null)
const known = ref(KNOWN)
const { draft, faults, message, isSending, begin, send, clear } = useFormEntry({
  kind: 'tool-check',
  of: () => tool.value,
  empty: () => ({ known: known.value, read: Array.from({ length: OFTEN }, () => '') }),
})
watch([isOpen, tool], ([open]) => {
  told.value = null
  if (open) begin()
}, { immediate: true })

/* What is typed goes to the first reading as soon as there is one. */
watch(() => chosen.value?.tool, () => {
  if (isOpen.value) void nextTick(focusFirstInDialog)
})

/** Readings that were typed, and the first that was not: what is refused is told by its place among those sent. */
const sent = computed(() => {
  const places = draft.value.read.map((typed, i) => ({ typed, i }))
  return [...places.filter(({ typed }) => typed.trim()), ...places.filter(({ typed }) => !typed.trim())].map(({ i }) => i)
})
const faultAt = (i: number) => `read.${sent.value.indexOf(i)}` in faults.value
const readings = useTemplateRef<HTMLElement>('readings')
const inputs = () => [...(readings.value?.querySelectorAll('input') ?? [])]

/** Enter goes on to the next reading that is empty, and sends behind the last: a caliper sends it behind each. */
function onEnter(event: KeyboardEvent): void {
  const empty = inputs().find((one) => !one.value.trim())
  if (!empty || !(event.target as HTMLInputElement).value.trim()) return
  event.preventDefault()
  empty.focus()
}
async function save(): Promise<void> {
  const which = tool.value
  await send(async (id, { known: length, read }) => {
    const body = { id, known: chosen.value?.on_block ? length : '', read: chosen.value?.on_block ? read.filter((typed) => typed.trim()) : [] }
    const answer = await answerOf(api.POST('/api/tools/{tool}/checked', { params: { path: { tool: which } }, body }))
    known.value = length || KNOWN
    if (which === tool.value) told.value = answer
  })
  if (Object.keys(faults.value).length || message.value) return
  await load()
  if (told.value?.to_set) void nextTick(() => inputs()[0]?.focus())
}
const off = (one: ToolChecked) =>
  one.off != null && one.known_to != null && !one.to_set ? t('true_to', { known_to: mm(one.known_to) }) :
  one.off == null || one.known_to == null
    ? t('read_true')
    : t('known_to', { off: t(one.off > 0 ? 'too_much' : 'too_little', { off: mm(Math.abs(one.off)) }), known_to: mm(one.known_to) })
</script>

<template>
  <FormDialog
    v-model="isOpen"
    :title="t('check_a_tool')"
    :act="chosen && !chosen.on_block ? t('save_check_reads_true') : t('save_check')"
    :is-sending="isSending"
    :message="message || failure"
    :leave="told ? t('close') : ''"
    @send="save"
    @cancel="clear"
  >
    <v-select v-model="tool" :label="t('tool')" :items="tools ?? []" item-value="tool" item-title="label" hide-details />
    <template v-if="chosen?.on_block">
      <v-text-field v-model="draft.known" :label="t('known_length')" inputmode="decimal" autocomplete="off" maxlength="40" :hint="t('known_length_hint')" persistent-hint :error-messages="faults['known']" />
      <p class="wide">{{ t('how') }}</p>
      <div ref="readings" class="wide readings">
        <v-text-field
          v-for="(_, i) in draft.read"
          :key="i"
          v-model="draft.read[i]"
          :label="t('reading', { number: i + 1 })"
          :data-first="i === 0 || null"
          inputmode="decimal"
          autocomplete="off"
          maxlength="40"
          hide-details
          :error="faultAt(i)"
          @keydown.enter="onEnter"
        />
      </div>
    </template>
    <p v-else-if="chosen" class="wide">{{ t('how_without') }}</p>
    <p v-if="told" class="wide told" :class="{ sets: told.to_set }" role="status">{{ told.says }}</p>
    <section v-if="chosen" class="wide" :aria-label="t('checks_so_far')">
      <h3>{{ t('checks_so_far') }}</h3>
      <p v-if="!chosen.checks.length">{{ t('never_checked') }}</p>
      <ul v-else>
        <li v-for="one in chosen.checks" :key="one.at">{{ ago(one.at) }}, {{ one.by }}: {{ off(one) }}</li>
      </ul>
      <p v-if="chosen.due">{{ t('due_again', { until: until(chosen.due) }) }}</p>
    </section>
  </FormDialog>
</template>

<style scoped>
.readings {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 10px;
}
.told {
  padding: 10px 14px;
  border-left: 5px solid var(--action);
  background: var(--note);
  font-size: var(--type-target);
}
.told.sets {
  border-left-color: var(--above);
}
p,
ul {
  margin: 0;
}
ul {
  padding-left: 18px;
}
h3 {
  margin: 4px 0;
  font-size: var(--type-text);
}
@media (max-width: 640px) {
  .readings {
    grid-template-columns: repeat(2, 1fr);
  }
}
</style>
