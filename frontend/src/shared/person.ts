/** Who is at the bench here, and what is in the hand. */
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { answerOf, api, keepDoor, type PersonView, type SignedIn } from '@/api'
import { forgetEntries } from './entry'
import { beginKeeping, forgetKept } from './kept'
import { useStored } from './stored'

export type Act = 'look' | 'arrive' | 'measure' | 'sign_off' | 'recipes' | 'figures' | 'people' | 'bill'

export const useAtBench = defineStore('at-bench', () => {
  /** A tool that was taken up for one measure, instead of its own. */
  const takenUp = ref<{ measure: string; tool: string } | null>(null)
  /** Whether lengths are told in inches and 64ths too. */
  const inches = useStored('inches', false)
  /** Whether digits typed anywhere start a reading; single keys can be turned off. */
  const bareKeys = useStored('bareKeys', true)
  const theme = useStored<'day' | 'lamp'>('theme', 'day')
  const signedIn = ref<SignedIn | null>(null)
  const isLoaded = ref(false)
  /** Whether the sign-in ended while the page was open. */
  const isOut = ref(false)
  /** Nobody is known in this house yet: the first to come owns it. */
  const isFirst = ref(false)

  const at = computed<PersonView | null>(() => signedIn.value?.at_bench ?? null)
  const person = computed(() => at.value?.name ?? '')
  const personId = computed(() => at.value?.id ?? '')
  const people = computed(() => signedIn.value?.people ?? [])

  function may(act: Act): boolean {
    return signedIn.value?.may.includes(act) ?? false
  }

  /** What a measure is read with: its own tool, unless another was taken up for it. */
  function toolFor(measure: string, tools: readonly string[]): string {
    const other = takenUp.value
    return other?.measure === measure && tools.includes(other.tool) ? other.tool : (tools[0] ?? '')
  }
  function chooseTool(measure: string, tool: string): void {
    takenUp.value = { measure, tool }
  }
  /** The next of the tools that read a measure. */
  function nextTool(measure: string, tools: readonly string[]): void {
    const at = tools.indexOf(toolFor(measure, tools))
    chooseTool(measure, tools[(at + 1) % tools.length] ?? '')
  }
  /** Something else was read, or another instrument is on the bench: the tool for that measure was put down. */
  function putBack(reading = ''): void {
    if (takenUp.value?.measure !== reading) takenUp.value = null
  }

  /** Every window of this browser shuts at once when one signs out. */
  const windows = new BroadcastChannel('fidicula-windows')
  windows.onmessage = () => shut()
  function shut(): void {
    void forgetKept()
    forgetEntries()
    hold(null)
  }

  function hold(now: SignedIn | null): void {
    if (now) void beginKeeping()
    if (now?.at_bench.id !== personId.value) putBack()
    signedIn.value = now
    isOut.value = false
    keepDoor(now?.form_token ?? '', () => {
      // The server does not know this browser any more: what it had of the house does not stay here. What is on the
      // page does, behind the sign-in, for what is half filled in there.
      isOut.value = signedIn.value !== null
      void forgetKept()
    })
  }

  /** Throws Refused where the server is away. */
  async function load(): Promise<void> {
    const now = await answerOf(api.GET('/api/session'))
    isFirst.value = now.first
    hold(now.signed_in)
    isLoaded.value = true
  }

  /** Throws Refused with what is wrong. */
  async function signIn(name: string, password: string): Promise<void> {
    await answerOf(api.POST('/api/session', { body: { name, password } }))
    await load()
  }

  async function begin(name: string, password: string, pin: string): Promise<void> {
    await answerOf(api.POST('/api/session/first', { body: { name, password, pin } }))
    await load()
  }

  async function signOut(): Promise<void> {
    await answerOf(api.POST('/api/session/out'))
    await leave()
  }
  async function leave(): Promise<void> {
    windows.postMessage('out')
    await forgetKept()
    shut()
  }

  /** Of this browser and every other that was signed in here, or in which a PIN was given. Throws Refused. */
  async function signOutEverywhere(): Promise<void> {
    await answerOf(api.POST('/api/session/out-everywhere'))
    await leave()
  }

  /** Someone else takes the place at the bench. Throws Refused with what is wrong. */
  async function toTheBench(person: string, pin: string): Promise<void> {
    hold(await answerOf(api.POST('/api/session/bench', { body: { person, pin } })))
  }

  return { toolFor, chooseTool, nextTool, putBack, inches, bareKeys, theme, isOut, signedIn, isLoaded, isFirst, at, person, personId, people, may, load, signIn, begin, signOut, signOutEverywhere, toTheBench }
})
