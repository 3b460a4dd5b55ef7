<script setup lang="ts">
/** One item: a count that came or went, another price, and everything that was entered of it. */
import { ref, watch } from 'vue'
import { answerOf, api, Refused, type StockItem, type StockLine } from '@/api'
import { useFormEntry } from '@/shared/entry'
import { ago } from '@/shared/format'
import { t } from '@/words/drawers'

const props = defineProps<{ item: StockItem; mayAct: boolean }>()
const emit = defineEmits<{ changed: [item: StockItem] }>()
const lines = ref<StockLine[] | null>(null)
const failure = ref('')
const { draft: form, message: fault, isSending, send } = useFormEntry({ kind: 'stock-entry', of: () => props.item.id, empty: () => ({ what: 'came' as 'came' | 'went' | 'price', value: '', reason: '' }) })
let asked = 0

async function load(): Promise<void> {
  const mine = ++asked
  try {
    const found = await answerOf(api.GET('/api/stock/{item_id}/entries', { params: { path: { item_id: props.item.id } } }))
    if (mine === asked) lines.value = found
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    if (mine === asked) failure.value = error.message
  }
}
watch(() => props.item.id, () => {
  lines.value = null
  failure.value = ''
  void load()
}, { immediate: true })
async function enter(): Promise<void> {
  const { id: item_id } = props.item
  const isSent = await send(async (id, { what, value, reason }) => {
    const body = { id, what: what === 'price' ? ('price' as const) : ('count' as const), value, comes: what !== 'went', reason }
    emit('changed', await answerOf(api.POST('/api/stock/{item_id}/entries', { params: { path: { item_id } }, body })))
  })
  if (isSent && item_id === props.item.id) await load()
}
</script>

<template>
  <section :aria-label="item.label">
    <h2>{{ item.label }}</h2>
    <p>{{ [item.kind_label, item.family, item.figure, item.place].filter(Boolean).join(' · ') }}</p>
    <p v-for="(said, name) in item.details" :key="name">{{ name }}: {{ said }}</p>
    <p>{{ t('here', { on_hand: item.on_hand }) }}<template v-if="item.reserved">, {{ t('of_them_reserved', { reserved: item.reserved }) }}</template><template v-if="item.is_low">. <b>{{ t('reorder') }}</b></template></p>
    <p v-if="item.supplier">{{ item.supplier }}</p>
    <form v-if="mayAct" @submit.prevent="enter">
      <fieldset>
        <legend class="only-read">{{ t('what_is_entered') }}</legend>
        <label><input v-model="form.what" type="radio" value="came" /> {{ t('came_in') }}</label>
        <label><input v-model="form.what" type="radio" value="went" /> {{ t('went_not_into_a_work') }}</label>
        <label><input v-model="form.what" type="radio" value="price" /> {{ t('price_from_now_on') }}</label>
      </fieldset>
      <label class="field">{{ form.what === 'price' ? t('price_of_one_2') : t('how_many_2') }} <input v-model="form.value" class="entry" inputmode="decimal" autocomplete="off" :aria-invalid="fault !== ''" /></label>
      <label class="field">{{ t('reason') }} <input v-model="form.reason" class="entry" maxlength="500" /></label>
      <p v-if="fault || failure" class="fault" role="alert">{{ fault || failure }}</p>
      <v-btn type="submit" variant="flat" :disabled="!form.value" :loading="isSending">{{ t('enter') }}</v-btn>
    </form>
    <h3>{{ t('so_far') }}</h3>
    <p v-if="!lines">{{ t('loading') }}</p>
    <p v-else-if="!lines.length">{{ t('nothing_was_entered_yet') }}</p>
    <ol v-else>
      <li v-for="(line, i) in lines" :key="i"><b>{{ line.value }}</b> {{ line.reason }} <span>{{ line.entered_by }}, {{ line.entered_at ? ago(line.entered_at) : '' }}</span></li>
    </ol>
  </section>
</template>

<style scoped>
h2 {
  margin: 0;
  font-size: var(--type-target);
}
h3 {
  margin: var(--space-4) 0 0;
  font-size: var(--type-text);
}
p {
  margin: var(--space-1) 0;
}
fieldset {
  margin: var(--space-3) 0 0;
  padding: 0;
  border: 0;
}
fieldset label {
  display: block;
  min-height: 36px;
}
.field {
  display: grid;
  margin-bottom: var(--space-2);
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  padding: 6px 0;
  border-top: 1px solid var(--hairline);
}
li span {
  display: block;
  color: var(--quiet);
}
</style>
