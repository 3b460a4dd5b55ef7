/** The house: the tags on the rail, and what the forms offer. */
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { answerOf, api, isKept, Refused, type Choices, type Tag } from '@/api'
import { day, until } from '@/shared/format'
import { useAtBench } from '@/shared/person'
import { useStored } from '@/shared/stored'
import { inOrder, type RailOrder } from './order'
import { t } from '@/words/rail'

const RETRY_AFTER_MS = 2500

export const useHouse = defineStore('house', () => {
  const tags = ref<Tag[]>([])
  const choices = ref<Choices | null>(null)
  const isLoaded = ref(false)
  const isAway = ref(false)
  /** Typed where an instrument is looked for: tags and rows are those that hold it. */
  const words = ref('')
  const order = useStored<RailOrder>('rail-order', 'ticket')

  /** Of the tags that are here. They are in no cache, where they would outlast a sign-out: this page asks by it itself. */
  let etag = ''
  let asked = 0
  async function askTags(): Promise<void> {
    const mine = ++asked
    const answer = api.GET('/api/rail', { headers: etag ? { 'If-None-Match': etag } : {} })
    const response = await answer.then((one) => one.response, () => null)
    if (response?.status === 304) return
    const found = await answerOf(answer)
    if (mine !== asked) return
    tags.value = found
    etag = isKept(found) ? '' : (response?.headers.get('etag') ?? '')
  }
  /* What one person saw is not shown to the next who signs in. */
  watch(() => useAtBench().signedIn, (now) => {
    if (now) return
    asked += 1
    etag = ''
    tags.value = []
    words.value = ''
  })

  /** The tags alone, as another bench has moved one; what the forms offer stays. */
  async function loadTags(): Promise<void> {
    try {
      await askTags()
    } catch (error) {
      // What hangs there stays; the next change, or the next look, asks again.
      if (!(error instanceof Refused)) throw error
    }
  }

  async function load(): Promise<void> {
    try {
      const [offered] = await Promise.all([answerOf(api.GET('/api/choices')), askTags()])
      choices.value = offered
      isLoaded.value = true
      isAway.value = false
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      isAway.value = true
      setTimeout(() => void load(), RETRY_AFTER_MS)
    }
  }

  /** Every tag in the order that was chosen, with what is found by words on it. */
  const ordered = computed(() => inOrder(tags.value, order.value).map((tag) => ({ tag, text: textOf(tag) })))
  /** The tags that hold every word typed, in any of what stands on them. */
  function found(typed: string): Tag[] {
    const wanted = typed.toLowerCase().split(/\s+/).filter(Boolean)
    return ordered.value.filter(({ text }) => wanted.every((word) => text.includes(word))).map(({ tag }) => tag)
  }
  function textOf(tag: Tag): string {
    const days = [tag.deadline && t('needed', { day: day(tag.deadline) }), tag.promised && t('promised', { day: day(tag.promised) })]
    const said = [tag.ticket, tag.family, tag.size, tag.owner, tag.complaint, tag.step, tag.kind, waitOf(tag), ...days]
    return [...said, tag.left_handed && 'left-handed', tag.is_fleet && 'fleet'].filter(Boolean).join(' ').toLowerCase()
  }

  /** What waits and until when; once the time has come, what it waited for. */
  function waitOf(tag: Tag): string {
    if (!tag.waits_until) return ''
    return Date.parse(tag.waits_until) > Date.now() ? t('until', { waits_for: tag.waits_for, until: until(tag.waits_until) }) : t('the_wait_is_over', { waits_for: tag.waits_for })
  }

  return { tags, choices, isLoaded, isAway, words, order, load, loadTags, found, waitOf }
})
