/** Works of which more is said than that they were done: what was filed, turned, or how the strings were. */
import { down } from '@/shared/format'
import type { BenchSheet } from '@/api'
import { t } from '@/words/works'

/** As typed. */
export interface WorkSaid {
  filed?: string[]
  turned?: string[]
  tension?: string
}
export const ASKED = ['nut_filed', 'adjusters_turned', 'post_set'] as const
export type AskedWork = (typeof ASKED)[number]
export const isAskedOf = (work: string): work is AskedWork => (ASKED as readonly string[]).includes(work)

/** As the instruction says it: “−1 5/8”, “7/8”; empty for what is not turned. */
function inEighths(turns: number): string {
  const eighths = Math.round(Math.abs(turns) * 8)
  const [whole, rest] = [Math.floor(eighths / 8), eighths % 8]
  const by = [1, 2, 4, 8].find((part) => (rest * part) % 8 === 0) ?? 8
  const said = [whole || '', rest ? `${(rest * by) / 8}/${by}` : ''].filter(Boolean).join(' ')
  return said && turns < 0 ? `−${said}` : said
}

/** The fields of a work: each with its name, and what was advised. Those of a nut lie as the strings do on the card. */
export function fieldsOf(work: AskedWork, sheet: BenchSheet): { at: number; name: string; advised: string }[] {
  const amounts = sheet.instruction.amounts
  if (work === 'nut_filed') {
    const names = sheet.instrument.string_names.map((name, at) => {
      const amount = amounts.find((one) => one.name === 'file_first' && one.position === at)
      return { at, name, advised: amount ? down(amount.value, 2) : '' }
    })
    return sheet.instrument.left_handed ? names.reverse() : names
  }
  if (work === 'adjusters_turned') {
    return (['bass', 'treble'] as const).map((side, at) => {
      const amount = amounts.find((one) => one.name === 'turns' && one.side === side)
      return { at, name: t(side === 'bass' ? 'bass_wheel' : 'treble_wheel'), advised: amount ? inEighths(amount.value) : '' }
    })
  }
  return []
}
