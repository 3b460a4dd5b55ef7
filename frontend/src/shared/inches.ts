/** A length as an inch rule has it: whole inches and 64ths, brought down. */
export const MM_PER_INCH = 25.4
const PARTS = 64

export function inches(mm: number): string {
  const parts = Math.round((Math.abs(mm) / MM_PER_INCH) * PARTS)
  const sign = mm < 0 && parts > 0 ? '−' : ''
  const whole = Math.floor(parts / PARTS)
  let [over, under] = [parts % PARTS, PARTS]
  while (over > 0 && over % 2 === 0) [over, under] = [over / 2, under / 2]
  if (over === 0) return `${sign}${whole} in`
  return `${sign}${whole > 0 ? `${whole} ` : ''}${over}/${under} in`
}
