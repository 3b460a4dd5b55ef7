<script setup lang="ts">
/** Browsers and devices that are signed in or paired, by name; the owner revokes one, anybody signs out everywhere. */
import { onMounted, ref } from 'vue'
import { answerOf, api, Refused, type BrowserView } from '@/api'
import { ago } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/people'

const atBench = useAtBench()
const browsers = ref<BrowserView[] | null>(null)
const failure = ref('')
const said = ref('')

onMounted(() => void take(answerOf(api.GET('/api/browsers'))))

async function take(asked: Promise<BrowserView[]>): Promise<boolean> {
  failure.value = ''
  said.value = ''
  try {
    browsers.value = await asked
    return true
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
    return false
  }
}
async function revoke(browser: BrowserView): Promise<void> {
  const path = { browser_id: browser.id }
  const isDone = await take(answerOf(api.POST('/api/browsers/{browser_id}/revoke', { params: { path } })))
  if (isDone) said.value = t('is_revoked', { name: browser.name })
}
async function signOutEverywhere(): Promise<void> {
  try {
    await atBench.signOutEverywhere()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    failure.value = error.message
  }
}
</script>

<template>
  <section :aria-label="t('devices')" class="devices">
    <header>
      <h2>{{ t('devices') }}</h2>
      <v-btn @click="signOutEverywhere">{{ t('sign_out_everywhere') }}</v-btn>
    </header>
    <p v-if="failure" role="alert" class="failure">{{ failure }}</p>
    <p v-else-if="said" role="status">{{ said }}</p>
    <p v-if="browsers === null && !failure" role="status">{{ t('loading') }}</p>
    <table v-else-if="browsers">
      <thead>
        <tr><th>{{ t('device') }}</th><th>{{ t('connected') }}</th><th>{{ t('signed_in') }}</th><th>{{ t('last_used') }}</th><th><span class="only-read">{{ t('action') }}</span></th></tr>
      </thead>
      <tbody>
        <tr v-for="browser in browsers" :key="browser.id">
          <th scope="row">{{ browser.name }}<template v-if="browser.is_this">{{ ' ' }}{{ t('this_one') }}</template></th>
          <td>{{ browser.is_paired ? t('paired_network') : t('this_computer') }}</td>
          <td>{{ browser.signed_in.join(', ') || 'nobody' }}</td>
          <td>{{ ago(browser.last_seen_at) }}</td>
          <td class="act">
            <v-btn
              v-if="atBench.may('people') && !browser.is_this"
              size="small"
              :aria-label="t('revoke', { name: browser.name })"
              @click="revoke(browser)"
            >
              {{ t('revoke_2') }}
            </v-btn>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="@/shared/list.css" />
<style scoped>
.devices {
  margin-top: 24px;
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
h2 {
  font-size: var(--type-target);
  margin: 0;
}
.act {
  text-align: right;
}
.failure {
  color: var(--error);
  font-weight: 700;
}
@media (max-width: 640px) {
  th:nth-child(2),
  td:nth-child(2) {
    display: none;
  }
}
</style>
