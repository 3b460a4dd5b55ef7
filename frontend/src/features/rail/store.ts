/** The house: the tags on the rail, and what the forms offer. */
import { defineStore } from 'pinia'
import { ref } from 'vue'
import { answerOf, api, Refused, type Choices, type Tag } from '@/api'
import { until } from '@/shared/format'

const RETRY_AFTER_MS = 2500

export const useHouse = defineStore('house', () => {
  const tags = ref<Tag[]>([])
  const choices = ref<Choices | null>(null)
  const isLoaded = ref(false)
  const isAway = ref(false)

  async function load(): Promise<void> {
    try {
      const [rail, offered] = await Promise.all([answerOf(api.GET('/api/rail')), answerOf(api.GET('/api/choices'))])
      tags.value = rail
      choices.value = offered
      isLoaded.value = true
      isAway.value = false
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      isAway.value = true
      setTimeout(() => void load(), RETRY_AFTER_MS)
    }
  }

  /** The tags that hold every word typed, in any of what stands on them. */
  function found(words: string): Tag[] {
    const wanted = words.toLowerCase().split(/\s+/).filter(Boolean)
    if (!wanted.length) return tags.value
    return tags.value.filter((tag) => {
      const text = [tag.ticket, tag.family, tag.size, tag.owner, tag.complaint, tag.step, tag.kind, tag.waits_for].join(' ').toLowerCase()
      return wanted.every((word) => text.includes(word))
    })
  }

  /** What waits and until when; once the time has come, what it waited for. */
  function waitOf(tag: Tag): string {
    if (!tag.waits_until) return ''
    return Date.parse(tag.waits_until) > Date.now() ? `${tag.waits_for} until ${until(tag.waits_until)}` : `${tag.waits_for}, the wait is over`
  }

  return { tags, choices, isLoaded, isAway, load, found, waitOf }
})
