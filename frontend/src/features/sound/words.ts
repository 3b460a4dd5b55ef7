/** Words of the trail that the page puts together itself. */
import type { SoundView } from '@/api'
import { t } from '@/words/sound'

export const STRING_QUALITIES = ['power', 'clarity', 'warmth', 'response'] as const
export const WHOLE_QUALITIES = ['even', 'focused', 'open', 'loud'] as const

/** “+2”, with a true minus. */
export function signed(value: number): string {
  return `${value > 0 ? '+' : '−'}${Math.abs(value)}`
}

/** Recordings of an instrument with the state that each is of, newest first. */
export function recordingsOf(view: SoundView): { id: string; of: string; words: string }[] {
  return view.lines
    .flatMap((line) =>
      line.recordings.map((one) => ({ id: one.id, of: t('place_4', { place: line.place, says: line.is_new_place || line.work === null ? '' : `, ${line.says}` }), words: one.words })),
    )
    .reverse()
}
