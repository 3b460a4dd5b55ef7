/** The API, typed by schema.d.ts, which every build makes from openapi.json; `./fidicula client` writes that. */
import createClient from 'openapi-fetch'
import { makeOnePress, saidBy } from '@/shared/onePress'
import { askPasswordAgain } from '@/shared/passwordAgain'
import { noteAnswer, noteAway } from './reach'
import { Refused } from './refused'
import type { components, paths } from './schema'
export { FAMILIES, type Family } from './codes'

export { onBack, reach } from './reach'
export { Refused } from './refused'

type Schemas = components['schemas']
/** A sheet as the server sends it: of each place only what may change. */
export type SheetAnswer = Schemas['BenchSheet']
export type CellWire = Schemas['CellWire']
export type CardPlace = Schemas['CardPlace']
/** One place that is read, whole: what never changes of it, and what holds there. */
export interface Cell extends CardPlace {
  state: CellWire['state']
  typed: string | null
  value: number | null
  assumed: number | null
  told: number | null
  told_by: string
  band: Schemas['BandView'] | null
  doubt: Schemas['DoubtView'] | null
  stale_because: string | null
  reading_id: string | null
  taken_by: string | null
  taken_at: string | null
  tool: string | null
  direction: NonNullable<CellWire['direction']> | null
  read: NonNullable<CellWire['read']> | null
  count: number
  last_time: number | null
  last_time_at: string | null
  repeat_spread: number
  spread_is_wide: boolean
  is_last_visit: boolean
  simulated: boolean
  likely: number[] | null
}
export interface BenchSheet extends Omit<SheetAnswer, 'cells'> {
  cells: Cell[]
}
export type PartView = Schemas['PartView']
export type StringCut = Schemas['StringCutFacts']
export type Drawing = Schemas['Drawing']
export type DrawnString = Schemas['DrawnString']
export type SideDrawing = Schemas['SideView']
export type PlanDrawing = Schemas['PlanView']
export type Views = Schemas['Views']
export type Dimension = Schemas['Dimension']
export type Beside = Schemas['Beside']
export type VisitPlan = Schemas['VisitPlan']
export type BillingView = Schemas['BillingView']
export type PlannedWork = Schemas['PlannedWork']
export type PlanVariant = Schemas['VariantView']
export type EstimateOnPaper = Schemas['EstimatePaper']
export type FleetEstimateView = Schemas['FleetEstimate']
export type StockItem = Schemas['StockView']
export type ToolChecked = Schemas['ToolChecked']
export type StockLine = Schemas['StockLine']
export type StockKind = Schemas['KindView']
export type ShopSetting = Schemas['SettingView']
export type PageView = Schemas['PageView']
export type DrawnNut = Schemas['NutDrawing']
export type DrawnBar = Schemas['BarDrawing']
export type DrawnLoad = Schemas['LoadDrawing']
export type DrawnWheels = Schemas['WheelsDrawing']
export type DrawnSwing = Schemas['SwingDrawing']
export type DrawnNeck = Schemas['NeckDrawing']
export type DrawnTail = Schemas['TailDrawing']
export type Belongings = Schemas['BelongingsView']
export type BelongingLine = Schemas['BelongingBody']
export type Thing = Schemas['BelongingView']
export type DamageMap = Schemas['DamageView']
export type DamageMark = Schemas['MarkView']
export type DamageLook = Schemas['DamageBody']
export type DamageSignature = Schemas['DamageSignedBody']
export type DrawnPlace = Schemas['PlaceDrawing']
export type DrawnStrings = Schemas['StringsDrawing']
export type PageHandle = Schemas['Handle']
export type PageConsequence = Schemas['Consequence']
export type PagePlot = Schemas['Plot']
export type PageTableData = Schemas['Table']
export type PageWay = Schemas['Way']
export type SoundView = Schemas['SoundView']
export type PlaceView = Schemas['PlaceView']
export type AdviceView = Schemas['AdviceView']
export type StringsView = Schemas['StringsView']
export type ShelfList = Schemas['ShelfView']
export type Why = Schemas['Why']
export type Stop = Schemas['Stop']
export type LogLine = Schemas['LogLine']
export type SetView = Schemas['SetView']
export type Tag = Schemas['Tag']
export type Choices = Schemas['Choices']
export type ArrivalBody = Schemas['ArrivalBody']
export type FleetBody = Schemas['FleetBody']
export type ReadingBody = Schemas['ReadingBody']
export type StringsBody = Schemas['StringsBody']
export type KnownView = Schemas['KnownView']
export type Decision = Schemas['DecisionView']
export type Undoable = Schemas['Undoable']
export type ItemView = Schemas['ItemView']
export type SeenBody = Schemas['SeenBody']
export type Screen = Schemas['Screen']
export type ScreenRow = Schemas['ScreenRow']
export type ScreenCell = Schemas['ScreenCell']
export type ScreenColumn = Schemas['ScreenColumn']
export type Told = Schemas['Told']
export type PaperView = Schemas['Paper']
export type PaperSketch = Schemas['Sketch']
export type InstrumentHistory = Schemas['InstrumentHistory']
export type HistoryChart = Schemas['Chart']
export type HistoryVisit = Schemas['HistoryVisit']
export type ChartPoint = Schemas['ChartPoint']
export type LogOfVisit = Schemas['LogOfVisit']
export type SealView = Schemas['SealView']
export type AskAnswer = Schemas['Answer']
export type KeptQuestion = Schemas['KeptQuestion']
export type ArchiveJob = Schemas['JobView']
export type ReadingsTable = Schemas['TableView']
export type Checklist = Schemas['Checklist']
export type ClosingPoint = Schemas['ClosingPointView']
export type ShopPoint = Schemas['ShopPoint']
export type CheckDue = Schemas['DueView']
export type PhotoSheet = Schemas['PhotoSheet']
export type Instruction = Schemas['InstructionView']
export type InstrumentView = Schemas['InstrumentView']
export type FollowBody = Schemas['FollowBody']
export type SourceBody = Schemas['SourceBody']
export type Following = Schemas['Following']
export type Preview = Schemas['Preview']
export type QuestionView = Schemas['QuestionView']
export type RecipeView = Schemas['RecipeView']
export type RecipesOfFamily = Schemas['RecipesOfFamily']
export type RecipeNumbers = Schemas['RecipeNumbers']
export type TargetChange = Schemas['TargetChange']
export type TargetLine = Schemas['TargetLine']
export type FigurePage = Schemas['FigurePage']
export type FigureRow = Schemas['FigureRow']
export type FigureLine = Schemas['FigureLine']

export type SignedIn = Schemas['SignedIn']
export type PersonView = Schemas['PersonView']
export type PersonBody = Schemas['PersonBody']
export type BrowserView = Schemas['BrowserView']
export type AuditLine = Schemas['AuditLine']

const client = createClient<paths>({ baseUrl: window.location.origin })

/** What is asked by these changes nothing, and may be asked as often as one likes. */
const ASKS_ONLY = /\/(pages\/\{page\}|preview|numbers|device)$/
const onePress = makeOnePress()
type Asked = { params?: unknown; body?: unknown }
/** A change that is pressed twice goes out once. */
function pressed<Method extends (path: never, init: never) => Promise<Answered<unknown>>>(name: string, ask: Method): Method {
  const asked = ask as unknown as (path: string, init?: Asked) => Promise<Answered<unknown>>
  const once = (path: string, init?: Asked) =>
    ASKS_ONLY.test(path)
      ? asked(path, init)
      : onePress(JSON.stringify([name, path, init?.params, saidBy(init?.body)]), () => asked(path, init), ({ response }) => !response.ok)
  return once as unknown as Method
}
/** What is sent out of the outbox goes by `request`: that has one sender, which sends each once. */
export const api = {
  ...client,
  POST: pressed('POST', client.POST as never) as typeof client.POST,
  PUT: pressed('PUT', client.PUT as never) as typeof client.PUT,
  PATCH: pressed('PATCH', client.PATCH as never) as typeof client.PATCH,
  DELETE: pressed('DELETE', client.DELETE as never) as typeof client.DELETE,
}

/** What this browser's session brings along with every change, and who is told that it has ended. */
const door = { formToken: '', onEnd: () => {} }
/** Answers that came from what this browser keeps, because the server gave none. */
const kept = new WeakSet<object>()
/** Whether an answer is what was last seen, and not what is so now. */
export function isKept(answer: unknown): boolean {
  return typeof answer === 'object' && answer !== null && kept.has(answer)
}

export function keepDoor(formToken: string, onEnd: () => void): void {
  door.formToken = formToken
  door.onEnd = onEnd
}

/** Each request as it was sent, until its answer is here: its body is read only once. */
const sent = new Map<string, Request>()

client.use({
  onRequest({ request, id, schemaPath }) {
    request.headers.set('X-Fidicula-Form', door.formToken)
    // Only what changes the shop is asked a password for.
    if (request.method !== 'GET' && !schemaPath.startsWith('/api/instruments')) sent.set(id, request.clone())
    return request
  },
  async onResponse({ response, schemaPath, id }) {
    const asked = sent.get(id)
    sent.delete(id)
    if (response.status === 401 && schemaPath !== '/api/session') door.onEnd()
    if (response.status !== 403 || asked === undefined) return response
    const items = detailOf(await response.clone().json().catch(() => null))
    if (!items.some((item) => item.type === 'password_again')) return response
    return (await askPasswordAgain(items[0]?.msg ?? '')) ? fetch(asked) : response
  },
  onError({ id }) {
    sent.delete(id)
  },
})

interface Answered<Data> {
  data?: Data
  error?: unknown
  response: Response
}

/** The data of an answer, or a Refused that says why there is none. */
export async function answerOf<Data>(asked: Promise<Answered<Data>>): Promise<Data> {
  let answered: Answered<Data>
  try {
    answered = await asked
  } catch {
    const none = new Refused('The server does not answer.', {}, true)
    noteAway(none)
    throw none
  }
  const { status, ok, headers } = answered.response
  if (ok && headers.has('x-fidicula-kept')) {
    noteAway(null)
    kept.add(answered.data as object)
    return answered.data as Data
  }
  const items = ok ? [] : detailOf(answered.error)
  // Under the field's name, and under its place within it: `diameters` and `diameters.2`.
  const fields = Object.fromEntries(
    items.flatMap((item) => [item.loc.slice(1, 2), item.loc.slice(1)].map((place) => [place.join('.'), sentence(item.msg)])),
  )
  const message = items.map((item) => sentence(item.msg)).join(' ') || `The server answered ${status}.`
  const error = ok ? null : new Refused(message, fields, status >= 500 || status === 401, status)
  if (status > 500) noteAway(error)
  else noteAnswer()
  if (error) throw error
  return answered.data as Data
}

interface DetailItem {
  loc: (string | number)[]
  msg: string
  type?: string
}

function detailOf(error: unknown): DetailItem[] {
  if (typeof error === 'object' && error !== null && 'detail' in error && Array.isArray(error.detail)) {
    return error.detail as DetailItem[]
  }
  return []
}

function sentence(text: string): string {
  const start = text.charAt(0).toUpperCase() + text.slice(1)
  return /[.?!]$/.test(start) ? start : `${start}.`
}
