<script setup lang="ts">
/** What is planned for all of an owner's instruments in the house, in one. */
import { answerOf, api } from '@/api'
import { useLoaded } from '@/shared/loaded'
import { t } from '@/words/plan'

const props = defineProps<{ owner: string }>()
const { found, failure } = useLoaded(() => props.owner, (owner) => answerOf(api.GET('/api/fleets/{owner}/estimate', { params: { path: { owner } } })))
const print = () => window.print()
</script>

<template>
  <main class="paper" :aria-label="t('estimate_of', { owner })">
    <h1>{{ t('estimate_of', { owner }) }}</h1>
    <p v-if="failure" role="alert">{{ failure }}</p>
    <template v-if="found">
      <table>
        <thead><tr><th>{{ t('ticket') }}</th><th>{{ t('works') }}</th><th class="right">{{ t('in_all') }}</th></tr></thead>
        <tbody>
          <tr v-for="line in found.lines" :key="line.ticket">
            <td><router-link :to="{ name: 'plan', params: { ticket: line.ticket } }">{{ line.ticket }}</router-link></td>
            <td>{{ line.works.join(', ') }}</td>
            <td class="right">{{ line.total }}</td>
          </tr>
        </tbody>
        <tfoot><tr><th scope="row" colspan="2">{{ t('all_of_them') }}</th><td class="right"><b>{{ found.usual }}</b><span v-if="found.low !== found.high">{{ t('to', { low: found.low, high: found.high }) }}</span></td></tr></tfoot>
      </table>
      <v-btn class="only-screen" @click="print">{{ t('print') }}</v-btn>
    </template>
  </main>
</template>

<style scoped src="../../shared/list.css"></style>
<style scoped>
.paper {
  max-width: 820px;
  margin: 0 auto;
  padding: 20px 28px 80px;
  background: var(--sheet);
}
.right {
  text-align: right;
}
.right span {
  display: block;
  color: var(--quiet);
}
</style>
