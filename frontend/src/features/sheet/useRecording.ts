/** Writing down what was done at an instrument, and what is measured next because of it. */
import { useRouter } from 'vue-router'
import { Refused } from '@/api'
import { keyOf, useBench, type useEntry } from '@/features/bench'
import { useHouse } from '@/features/rail'
import { isAskedOf, type AskedWork, type WorkSaid } from '@/features/works'
import { freshId } from '@/shared/id'

/** Where a work is measured first: the caliper may be there before the server has answered. */
const FIRST_HEIGHT = 'end_height:0'
const FIRST_AT_NUT = 'nut_height:0'

export interface UseRecordingReturn {
  /** Whether the sheet asks for a work now, or lets it be recorded beside that. */
  mayRecord: (kind: string) => boolean
  cutCrown: () => Promise<void>
  /** A work of which more is said, as typed; throws Refused, which is said on the page already. */
  recordSaid: (work: AskedWork, said: WorkSaid, id: string) => Promise<void>
  /**
   * Any other work: what it made stale is measured next. A move of the post says which end went, and which way.
   * Throws Refused, which is said on the page already.
   */
  recordOther: (kind: string, words: string, id: string) => Promise<void>
  record: (kind: string) => void
  takeBackHandOver: () => Promise<void>
}

/** begin : what is shown of a why is closed.  openStrings, ask : new strings, and works of which more is said, have their own dialogs. */
export function useRecording(entry: ReturnType<typeof useEntry>, begin: () => void, openStrings: (change: boolean) => void, ask: (work: AskedWork) => void): UseRecordingReturn {
  const router = useRouter()
  const bench = useBench()
  const house = useHouse()

  const labelOf = (kind: string) => house.choices?.works.find((one) => one.key === kind)?.label ?? kind

  async function cutCrown(): Promise<void> {
    begin()
    const done = bench.doWork('crown_cut', '', labelOf('crown_cut'))
    entry.goTo(FIRST_HEIGHT)
    if (await done) void house.load()
  }
  async function recordSaid(work: AskedWork, said: WorkSaid, id: string): Promise<void> {
    begin()
    const done = bench.doWork(work, '', labelOf(work), id, said)
    if (work === 'nut_filed') entry.goTo(FIRST_AT_NUT)
    if (work === 'adjusters_turned') entry.goTo(FIRST_HEIGHT)
    if (!(await done)) throw new Refused(bench.failure)
    void house.load()
  }
  function mayRecord(kind: string): boolean {
    const told = bench.sheet?.instruction
    return told?.record?.work === kind || (told?.also ?? []).some((one) => one.work === kind)
  }
  async function recordOther(kind: string, words: string, id: string): Promise<void> {
    begin()
    if (kind === 'post_moved') {
      void router.push({ name: 'sound', params: { ticket: bench.ticket }, query: { act: 'move' } })
      return
    }
    if (isAskedOf(kind)) {
      ask(kind)
      return
    }
    if (!(await bench.doWork(kind, words, labelOf(kind), id))) throw new Refused(bench.failure)
    const stale = bench.sheet?.cells.find((cell) => cell.state === 'stale' && cell.told === null)
    if (stale) entry.goTo(keyOf(stale))
    void house.load()
  }
  function record(kind: string): void {
    if (kind === 'crown_cut') void cutCrown()
    else if (isAskedOf(kind)) ask(kind)
    else if (kind === 'strings_changed') openStrings(true)
    else void recordOther(kind, '', freshId()).catch(said)
  }
  function said(error: unknown): void {
    if (!(error instanceof Refused)) throw error
  }
  async function takeBackHandOver(): Promise<void> {
    if (await bench.takeBackHandOver()) void house.load()
  }

  return { mayRecord, cutCrown, recordSaid, recordOther, record, takeBackHandOver }
}
