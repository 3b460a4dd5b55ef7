/** Time across a row: what lies behind today, today by the hour, five days, and what comes later. */

export interface Axis {
  /** Where a moment stands, from 0 to 1. */
  at: (when: number) => number
  /** Hours of today and the days after it, with where they begin. */
  hours: { hour: number; at: number }[]
  days: { at: number; when: number }[]
  /** Where today begins, where it ends, where what is later begins. */
  today: number
  ends: number
  later: number
  now: number
}

const OPENS = 8
const CLOSES = 18
const DAYS = 5
const TODAY = 0.14
const ENDS = 0.5
const LATER = 0.93

function dayOf(when: number, days: number, hour: number): number {
  const date = new Date(when)
  date.setHours(hour, 0, 0, 0)
  date.setDate(date.getDate() + days)
  return date.getTime()
}
const within = (value: number, from: number, to: number) => Math.min(1, Math.max(0, (value - from) / Math.max(1, to - from)))

/** now : the moment.  earliest : the oldest moment that is shown. */
export function axisOf(now: number, earliest: number): Axis {
  const opens = dayOf(now, 0, OPENS)
  const closes = dayOf(now, 0, CLOSES)
  const wide = (LATER - ENDS) / DAYS
  function at(when: number): number {
    if (when < opens) return TODAY * within(when, Math.min(earliest, opens - 3_600_000), opens)
    if (when < dayOf(now, 1, 0)) return TODAY + (ENDS - TODAY) * within(when, opens, closes)
    for (let day = 1; day <= DAYS; day += 1) {
      if (when < dayOf(now, day + 1, 0)) return ENDS + wide * (day - 1 + within(when, dayOf(now, day, OPENS), dayOf(now, day, CLOSES)))
    }
    return (LATER + 1) / 2
  }
  return {
    at,
    hours: [8, 10, 12, 14, 16].map((hour) => ({ hour, at: at(dayOf(now, 0, hour)) })),
    days: Array.from({ length: DAYS }, (_, i) => ({ at: ENDS + wide * i, when: dayOf(now, i + 1, 12) })),
    today: TODAY,
    ends: ENDS,
    later: LATER,
    now: at(now),
  }
}
