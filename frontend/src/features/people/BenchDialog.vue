<script setup lang="ts">
/** Who takes the bench, with a PIN unless known here, and the way to checking a tool. */
import { computed, nextTick, ref, watch } from 'vue'
import { Refused } from '@/api'
import { focusChosenInDialog } from '@/shared/focus'
import { useAtBench } from '@/shared/person'
import { useToolCheck } from '@/features/tools'
import { t as tools } from '@/words/tools'
import { t } from '@/words/people'

const isOpen = defineModel<boolean>({ required: true })
const atBench = useAtBench()
const { check } = useToolCheck()

const chosen = ref('')
const pin = ref('')
const fault = ref('')
const isSending = ref(false)
const form = ref<HTMLFormElement | null>(null)

const here = computed(() => atBench.people.filter((person) => person.active))
const person = computed(() => here.value.find((candidate) => candidate.id === chosen.value) ?? null)
const asksPin = computed(() => person.value !== null && !person.value.is_in)

watch(isOpen, (open) => {
  if (!open) return
  chosen.value = atBench.personId
  pin.value = ''
  fault.value = ''
})
/* Whoever opens it before the people are there has the focus on a name once they are. */
watch(here, (now, before) => {
  if (isOpen.value && now.length && !before.length) focusChosenInDialog()
})
watch(chosen, () => {
  pin.value = ''
  fault.value = ''
})

async function done(): Promise<void> {
  if (chosen.value === atBench.personId) {
    isOpen.value = false
    return
  }
  if (isSending.value) return
  isSending.value = true
  fault.value = ''
  try {
    await atBench.toTheBench(chosen.value, pin.value)
    isOpen.value = false
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    fault.value = error.message
    pin.value = ''
    void nextTick(() => form.value?.querySelector<HTMLInputElement>('#pin')?.focus())
  } finally {
    isSending.value = false
  }
}
/** Enter on a name goes on to the PIN where one is asked. */
function onEnter(event: KeyboardEvent): void {
  if (!asksPin.value || pin.value !== '') return
  event.preventDefault()
  void nextTick(() => form.value?.querySelector<HTMLInputElement>('#pin')?.focus())
}
/** The dialog for it stands in the place of this one. */
function checkTool(): void {
  isOpen.value = false
  check('caliper')
}
async function signOut(): Promise<void> {
  isOpen.value = false
  await atBench.signOut()
}
</script>

<template>
  <v-dialog v-model="isOpen" @after-enter="focusChosenInDialog">
    <v-card>
      <v-card-title tag="h2">{{ t('at_the_bench') }}</v-card-title>
      <v-card-text>
        <form id="at-bench" ref="form" class="form" @submit.prevent="done">
          <v-radio-group v-model="chosen" :label="t('who_takes_the_readings')" @keydown.enter="onEnter">
            <v-radio v-for="one in here" :key="one.id" :value="one.id" :label="`${one.name}, ${one.role}`" />
          </v-radio-group>
          <v-text-field
            v-if="asksPin"
            id="pin"
            v-model="pin"
            :label="`${person?.name}'s PIN`"
            type="password"
            inputmode="numeric"
            autocomplete="off"
            :hint="person?.has_pin ? '' : t('no_pin_yet_the_owner')"
            persistent-hint
            :error-messages="fault"
          />
          <p v-else-if="fault" class="fault" role="alert">{{ fault }}</p>
          <v-checkbox v-model="atBench.bareKeys" hide-details :label="t('digits_typed_anywhere_start_a')" />
          <v-btn v-if="atBench.may('measure')" class="check" @click="checkTool">{{ tools('check_a_tool') }} …</v-btn>
        </form>
      </v-card-text>
      <v-card-actions class="actions">
        <v-btn @click="signOut">{{ t('sign_out') }}</v-btn>
        <v-btn variant="flat" type="submit" form="at-bench" :loading="isSending">{{ t('done') }}</v-btn>
      </v-card-actions>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.form {
  display: grid;
  gap: 14px;
}
.check {
  justify-self: start;
}
.actions {
  padding: 8px 24px 20px;
}
</style>
