<script setup lang="ts">
/** Who works here: the owner takes people on, gives PINs, and lets them go. */
import { computed, nextTick, reactive, ref } from 'vue'
import { answerOf, api, Refused, type PersonBody, type PersonView } from '@/api'
import { useCommands } from '@/shared/commands'
import { useAtBench } from '@/shared/person'
import DeviceList from './DeviceList.vue'
import { t } from '@/words/people'

const atBench = useAtBench()
const ROLES: { value: PersonBody['role']; title: string; says: string }[] = [
  { value: 'owner', title: t('owner'), says: t('may_do_everything_alone_changes') },
  { value: 'luthier', title: t('luthier'), says: t('measures_cuts_keeps_recipes_signs') },
  { value: 'apprentice', title: t('apprentice'), says: t('measures_and_cuts_does_not') },
  { value: 'desk', title: t('desk'), says: t('takes_in_and_hands_over') },
]

/** Who is opened; null for someone new, undefined for nobody. */
const opened = ref<PersonView | null | undefined>(undefined)
const form = reactive({ name: '', role: 'apprentice' as PersonBody['role'], active: true, password: '', pin: '' })
const faults = ref<Record<string, string>>({})
const failure = ref('')
const said = ref('')
const isSending = ref(false)
const side = ref<HTMLElement | null>(null)
const roleSays = computed(() => ROLES.find((role) => role.value === form.role)?.says ?? '')

function open(person: PersonView | null): void {
  opened.value = person
  Object.assign(form, {
    name: person?.name ?? '',
    role: person?.role ?? 'apprentice',
    active: person?.active ?? true,
    password: '',
    pin: '',
  })
  faults.value = {}
  failure.value = ''
  said.value = ''
  void nextTick(() => side.value?.querySelector('input')?.focus())
}

async function keep(): Promise<void> {
  if (isSending.value || opened.value === undefined) return
  isSending.value = true
  faults.value = {}
  failure.value = ''
  const body: PersonBody = { ...form }
  try {
    const id = opened.value?.id
    await (id === undefined
      ? answerOf(api.POST('/api/people', { body }))
      : answerOf(api.PUT('/api/people/{person_id}', { params: { path: { person_id: id } }, body })))
    said.value = t('is_saved', { trim: form.name.trim() })
    opened.value = undefined
    await atBench.load()
  } catch (error) {
    if (!(error instanceof Refused)) throw error
    faults.value = error.fields
    if (!Object.keys(error.fields).some((field) => field in form)) failure.value = error.message
  } finally {
    isSending.value = false
  }
}

useCommands([{ letter: 'a', own: true, words: t('add_person'), run: () => open(null), possible: () => atBench.may('people') }])
</script>

<template>
  <div class="page">
    <main class="sheet" :aria-label="t('people')">
      <header>
        <h1>{{ t('people') }}</h1>
        <v-btn v-if="atBench.may('people')" @click="open(null)">{{ t('add_person_2') }}</v-btn>
      </header>
      <p v-if="said" role="status">{{ said }}</p>
      <table>
        <thead>
          <tr><th>{{ t('name') }}</th><th>{{ t('role') }}</th><th>{{ t('pin') }}</th><th><span class="only-read">{{ t('active') }}</span></th></tr>
        </thead>
        <tbody>
          <tr v-for="person in atBench.people" :key="person.id" :class="{ gone: !person.active }">
            <th scope="row">
              <button v-if="atBench.may('people')" type="button" class="plain-button name" @click="open(person)">{{ person.name }}</button>
              <template v-else>{{ person.name }}</template>
            </th>
            <td>{{ person.role }}</td>
            <td>{{ person.has_pin ? t('has_one') : t('none') }}</td>
            <td>{{ person.active ? '' : t('has_left') }}</td>
          </tr>
        </tbody>
      </table>
      <DeviceList />
    </main>
    <aside v-if="opened !== undefined" ref="side" class="side" :aria-label="t('the_opened_person')">
      <form class="form" @submit.prevent="keep">
        <h2>{{ opened?.name ?? t('new_person') }}</h2>
        <v-text-field v-model="form.name" :label="t('name')" autocomplete="off" :error-messages="faults.name" />
        <v-select v-model="form.role" :label="t('role')" :items="ROLES" item-value="value" item-title="title" :hint="roleSays" persistent-hint />
        <v-text-field
          v-model="form.password"
          :label="opened ? t('new_password_or_empty') : t('password')"
          type="password"
          autocomplete="new-password"
          :error-messages="faults.password"
        />
        <v-text-field
          v-model="form.pin"
          :label="opened?.has_pin ? t('new_pin_or_empty') : t('pin_for_the_bench')"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          :error-messages="faults.pin"
        />
        <v-checkbox v-if="opened" v-model="form.active" :label="t('works_here')" :hint="t('who_has_left_is_signed')" persistent-hint />
        <p v-if="failure" class="failure" role="alert">{{ failure }}</p>
        <div class="acts">
          <v-btn type="submit" variant="flat" :loading="isSending">{{ t('save_person') }}</v-btn>
          <v-btn @click="opened = undefined">{{ t('cancel') }}</v-btn>
        </div>
      </form>
    </aside>
  </div>
</template>

<style scoped src="@/shared/list.css" />
<style scoped>
.page {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 372px;
  gap: 8px 12px;
  padding: 10px 16px 64px;
  align-items: start;
}
.sheet,
.side {
  padding: 14px 18px 18px;
  background: var(--sheet);
  border-radius: var(--corner);
  font-size: var(--type-text);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 8px;
}
h1 {
  font-size: var(--type-title);
  margin: 0;
}
h2 {
  font-size: var(--type-target);
  margin: 0;
}
.name {
  min-height: var(--hit);
  font-weight: 700;
  text-decoration: underline;
  text-decoration-color: var(--hairline);
  text-underline-offset: 4px;
}
.gone {
  color: var(--quiet);
}
.form {
  display: grid;
  gap: 14px;
}
.acts {
  display: flex;
  gap: 8px;
}
.failure {
  margin: 0;
  padding: 8px 12px;
  border: 2px solid var(--error);
  border-radius: var(--corner);
  font-weight: 700;
}
@media (max-width: 1000px) {
  .page {
    grid-template-columns: minmax(0, 1fr);
    padding: 10px 8px 64px;
  }
  .side {
    grid-row: 1;
  }
}
</style>
