<script setup lang="ts">
/** The password again, before something that changes the shop; what waited for it then goes on by itself. */
import { computed, nextTick, ref, watch } from 'vue'
import { answerOf, api, Refused } from '@/api'
import { usePasswordAgain } from '@/shared/passwordAgain'
import { useAtBench } from '@/shared/person'
import { t } from '@/words/people'

const atBench = useAtBench()
const { why, answer } = usePasswordAgain()
const password = ref('')
const fault = ref('')
const isSending = ref(false)
const form = ref<HTMLFormElement | null>(null)
const isOpen = computed({
  get: () => why.value !== '',
  set: (open) => {
    if (!open) answer(false)
  },
})

watch(isOpen, (open) => {
  password.value = ''
  fault.value = ''
  if (open) void nextTick(focus)
})
function focus(): void {
  form.value?.querySelector('input')?.focus()
}

async function send(): Promise<void> {
  if (isSending.value) return
  isSending.value = true
  fault.value = ''
  try {
    await answerOf(api.POST('/api/session/confirm', { body: { password: password.value } }))
    answer(true)
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
    password.value = ''
    void nextTick(focus)
  } finally {
    isSending.value = false
  }
}
</script>

<template>
  <v-dialog v-model="isOpen" max-width="440" @after-enter="focus">
    <v-card>
      <form ref="form" @submit.prevent="send" @keydown.esc="isOpen = false">
        <v-card-title tag="h2">{{ t('confirm_with_your_password') }}</v-card-title>
        <v-card-text>
          <p>{{ t('this_changes_the_shop_the') }}</p>
          <v-text-field
            v-model="password"
            :label="`${atBench.person}'s password`"
            type="password"
            autocomplete="current-password"
            :error-messages="fault"
          />
        </v-card-text>
        <v-card-actions class="actions">
          <v-btn @click="isOpen = false">{{ t('cancel') }}</v-btn>
          <v-btn type="submit" variant="flat" :loading="isSending">{{ t('confirm') }}</v-btn>
        </v-card-actions>
      </form>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.actions {
  padding: 8px 24px 20px;
}
p {
  margin: 0 0 14px;
}
</style>
