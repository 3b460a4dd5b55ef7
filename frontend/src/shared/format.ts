import { t } from '@/words/shared'

/** Numbers as they stand on the sheet. Nothing is computed here. */

/** Millimetres with a true minus; readings to 0.01, cuts to 0.1. */
/** An amount to take: rounded down, never up. */
export function down(value: number, places: number): string {
  const scale = 10 ** places
  return (Math.floor(value * scale + 1e-6) / scale).toFixed(places)
}

/** How well something is known: rounded up, never to nothing. */
export function up(value: number, places: number): string {
  const scale = 10 ** places
  return (Math.max(1, Math.ceil(value * scale - 1e-6)) / scale).toFixed(places)
}

export function mm(value: number, places = 2): string {
  const text = value.toFixed(places)
  return /^-0\.?0*$/.test(text) ? text.slice(1) : text.replace('-', '−')
}

/** A length as the bench says it: no needless zeros. */
export function plain(value: number): string {
  return String(Number(value.toFixed(2))).replace('-', '−')
}

/** How long ago, in the largest unit that says something. */
export function ago(when: string, now: number = Date.now()): string {
  const minutes = Math.round((now - Date.parse(when)) / 60_000)
  if (minutes < 1) return t('just_now')
  if (minutes < 60) return t('min_ago', { minutes })
  const hours = Math.round(minutes / 60)
  if (hours < 24) return t('h_ago', { hours })
  const days = Math.round(hours / 24)
  return days === 1 ? t('yesterday') : t('days_ago', { days })
}

/** Until when: the hour today, the weekday and hour within a week, else the day. */
export function until(when: string, now: number = Date.now()): string {
  const then = new Date(when)
  const hour = then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  if (then.toDateString() === new Date(now).toDateString()) return hour
  if (then.getTime() - now < 6 * 86_400_000) return `${then.toLocaleDateString('en-GB', { weekday: 'short' })} ${hour}`
  return day(when)
}

/** A day as the bench says it. */
/** “28 Nov 2024”: a day of any year. */
export function dayAndYear(when: string): string {
  return new Date(when).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}

export function day(when: string): string {
  return new Date(when).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
}

/** A moment to the minute: on record, so never only "a while ago". */
export function moment(when: string): string {
  const then = new Date(when)
  return `${then.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })} ${then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`
}

const EIGHTHS = ['', '⅛', '¼', '⅜', '½', '⅝', '¾', '⅞']
/** Turns as the hand makes them, to the nearest eighth: “1⅝”, “¾”, “0”. */
export function eighths(turns: number): string {
  const count = Math.round(turns * 8)
  const whole = Math.floor(count / 8)
  return `${whole || ''}${EIGHTHS[count % 8] ?? ''}` || '0'
}

/** A list in a small space: its first few, and how many more. */
export function firstFew(items: readonly string[], most = 8): string {
  const more = items.length - most
  return more > 0 ? `${items.slice(0, most).join(' · ')} · +${more}` : items.join(' · ')
}
