<script setup lang="ts">
/** Something new for the drawers: what it is, how many, what it costs and where it lies. */
import { computed, ref, watch } from 'vue'
import { FAMILIES, type Family, answerOf, api, Refused, type StockItem, type StockKind } from '@/api'
import { useFormEntry } from '@/shared/entry'
import FormDialog from '@/shared/FormDialog.vue'
import { t } from '@/words/drawers'

const props = defineProps<{ kinds: StockKind[]; kind: string }>()
const isOpen = defineModel<boolean>({ required: true })
const emit = defineEmits<{ added: [item: StockItem] }>()
type Of = '' | Family
const empty = () => ({ kind: props.kind || 'bridge_blank', family: '' as Of, label: '', figure: '', counted: '', price: '', place: '', reorder_at: '', supplier: '', details: {} as Record<string, string>, set_id: '' })
const DETAILS: Record<string, { name: string; label: string }[]> = {
  bridge_blank: [
    { name: 'model', label: t('model') },
    { name: 'grade', label: t('grade') },
    { name: 'seasoned since', label: t('seasoned_since') },
  ],
  post: [{ name: 'wood', label: t('wood') }],
  string_set: [{ name: 'material', label: t('material') }],
}
/** One item, until it is there: sent again after a lost answer it is one. */
const { draft: form, faults, message, isSending, begin, send: sendEntry, clear } = useFormEntry({ kind: 'stock', of: () => '', empty })
watch(isOpen, (open) => {
  if (open) begin()
}, { immediate: true })
const families: { value: Of; title: string }[] = [
  { value: '', title: t('any') },
  ...FAMILIES.map((family) => ({ value: family, title: family })),
]
const of = computed(() => props.kinds.find((one) => one.kind === form.value.kind) ?? null)
const sets = ref<{ id: string; name: string }[]>([])
let asked = 0
watch(
  [isOpen, () => form.value.kind, () => form.value.family] as const,
  async ([open, kind, family]) => {
    if (!open || kind !== 'string_set' || !family) return
    const mine = ++asked
    try {
      const found = await answerOf(api.GET('/api/string-sets/{family}', { params: { path: { family } } }))
      if (mine === asked) sets.value = found
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      if (mine === asked) sets.value = []
    }
  },
)
watch(() => form.value.set_id, (chosen) => {
  const found = sets.value.find((one) => one.id === chosen)
  if (found && !form.value.label) form.value.label = found.name
})

async function send(): Promise<void> {
  await sendEntry(async (id, { details, set_id, ...typed }) => {
    const named = Object.fromEntries(Object.entries(details).filter(([, said]) => said.trim()))
    const item = await answerOf(api.POST('/api/stock', { body: { id, ...typed, details: named, string_set_id: typed.kind === 'string_set' && set_id ? set_id : null } }))
    emit('added', item)
  }, () => (isOpen.value = false))
}
</script>

<template>
  <FormDialog v-model="isOpen" :title="t('new_in_the_drawers')" :act="t('put_it_in')" :is-sending="isSending" :message="message" @send="send" @cancel="clear">
    <v-select v-model="form.kind" data-first :label="t('what_it_is')" :items="kinds" item-value="kind" item-title="label" :error-messages="faults.kind" />
    <v-select v-model="form.family" :label="t('for')" :items="families" :error-messages="faults.family" />
    <v-select v-if="form.kind === 'string_set' && form.family" v-model="form.set_id" class="wide" :label="t('set_with_its_diameters_and')" :items="sets" item-value="id" item-title="name" />
    <v-text-field v-model="form.label" :label="t('name')" maxlength="100" :error-messages="faults.label" />
    <v-text-field v-if="of?.figure" v-model="form.figure" :label="t('text', { figure: of.figure, unit: of.unit })" inputmode="decimal" :error-messages="faults.figure" />
    <v-text-field v-for="one in DETAILS[form.kind] ?? []" :key="one.name" v-model="form.details[one.name]" :label="one.label" maxlength="100" />
    <v-text-field v-model="form.counted" :label="t('how_many')" inputmode="decimal" :error-messages="faults.counted" />
    <v-text-field v-model="form.price" :label="t('price_of_one')" inputmode="decimal" :error-messages="faults.price" />
    <v-text-field v-model="form.place" :label="t('where_it_lies')" maxlength="100" />
    <v-text-field v-model="form.reorder_at" :label="t('reorder_when_so_many_are')" inputmode="decimal" :error-messages="faults.reorder_at" />
    <v-text-field v-model="form.supplier" class="wide" :label="t('supplier_and_what_they_say')" maxlength="100" />
  </FormDialog>
</template>
