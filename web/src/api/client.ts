import createClient from 'openapi-fetch'
import { device } from './device'
import { atTheDoor } from './door'
import { listening } from './trouble'
import type { components, paths } from './schema'

type Schemas = components['schemas']
export type Start = Schemas['Start']
export type Me = Schemas['Me']
export type Deed = Schemas['Deed']
export type Role = Schemas['Me']['role']
export type Person = Schemas['Person']
export type PersonFields = Schemas['PersonFields']
export type Invitation = Schemas['Invitation']
export type SecurityEntry = Schemas['SecurityEntry']
export type Material = Schemas['Listed']
export type MaterialName = Schemas['Named']
export type MaterialFields = Schemas['MaterialFields']
export type Doubt = Schemas['Doubt']
export type ImportAnswer = Schemas['ImportAnswer']
export type Site = Schemas['Site']
export type SiteFields = Schemas['SiteFields']
export type SiteMonth = Schemas['SiteMonth']
export type Measure = Schemas['Measure']
export type MeasureFields = Schemas['MeasureFields']
export type VolumeWay = Schemas['VolumeWay']
export type Lot = Schemas['Lot']
export type LotFields = Schemas['LotFields']
export type LotEvent = Schemas['LotEvent']
export type Figure = Schemas['SourcedFigure']
export type LotAct = Schemas['LotAct']
export type HeapJudgement = Schemas['HeapJudgement']
export type HeatShown = Schemas['HeatShown']
export type HeatDayCell = Schemas['HeatDayCell']
export type UseFollows = Schemas['UseFollows']
export type Readiness = Schemas['ReadinessTold']
export type Cause = Schemas['CauseTold']
export type CauseCode = Schemas['CauseCode']
export type ClueTold = Schemas['ClueTold']
export type ActTold = Schemas['ActTold']
export type Task = Schemas['TaskTold']
export type TodayAnswer = Schemas['TodayAnswer']
export type TodayLine = Schemas['TodayLine']
export type PrepareLine = Schemas['PrepareLine']
export type ApplyRequest = Schemas['ApplyRequest']
export type ApplyAnswer = Schemas['ApplyAnswer']
export type ApplyUse = Schemas['ApplyUse']
export type Amount = Schemas['Amount']
export type HarvestRequest = Schemas['HarvestRequest']
export type CompostTold = Schemas['CompostTold']
export type CompostActRequest = Schemas['CompostActRequest']
export type GroundFields = Schemas['GroundFields']
export type GroundTold = Schemas['GroundTold']
export type UseRequest = Schemas['UseRequest']
export type UseTold = Schemas['UseTold']
export type KeptTo = Schemas['KeptTo']
export type LabRequest = Schemas['LabRequest']
export type LabFigure = Schemas['LabFigure']
export type FigureTold = Schemas['FigureTold']
export type ComparedHeap = Schemas['ComparedHeap']
export type CompareFeature = Schemas['Feature']
export type SiteRules = Schemas['SiteRules']
export type SchoolId = Schemas['SchoolId']
export type Fault = Schemas['FaultAnswer']
export type ShapeKind = Schemas['ShapeKind']
export type UsedFor = Schemas['UsedFor']
export type Limits = Schemas['Limits']
export type Moment = Schemas['Moment']
export type Kind = Schemas['Kind']
export type Feel = Schemas['Feel']
export type Glyph = Schemas['Glyph']
export type FieldTest = Schemas['FieldTest']
export type Readings = Schemas['Readings']
export type TestAnswer = Schemas['TestAnswer']
export type SortedOut = Schemas['SortedOut']
export type SortedOutFields = Schemas['SortedOutFields']
export type FormulateRequest = Schemas['FormulateRequest']
export type FormulateAnswer = Schemas['FormulateAnswer']
export type ChoiceLine = Schemas['ChoiceLine']
export type Confidence = Schemas['ConfidenceAnswer']
export type ThumbRule = Schemas['ThumbRule']
export type ThumbAnswer = Schemas['ThumbAnswer']
export type CorrectChoice = Schemas['CorrectChoice']
export type CorrectPart = Schemas['CorrectPart']
export type SayAnswer = Schemas['SayAnswer']
export type SayItem = Schemas['SayItem']
export type SayUnknown = Schemas['SayUnknown']
export type FormulateShare = Schemas['FormulateShare']
export type FormulateAddition = Schemas['FormulateAddition']
export type Method = Schemas['ListedMethod']
export type MethodFields = Schemas['MethodFields']
export type SuitRequest = Schemas['SuitRequest']
export type SuitAnswer = Schemas['SuitAnswer']
export type CautionNote = Schemas['CautionNote']
export type Unit = Schemas['Unit']
export type OwnFigures = Schemas['OwnFigures']
export type Batch = Schemas['Batch']
export type BatchListed = Schemas['BatchListed']
export type BatchFields = Schemas['BatchFields']
export type BatchPart = Schemas['BatchPart']
export type HeapListed = Schemas['HeapListed']
export type EntryKind = Schemas['EntryKind']
export type Tended = Schemas['Tended_BatchPart']
export type TendRequest = Schemas['TendRequest']
export type TendedHeap = Schemas['TendedHeap']
export type HeapNow = Schemas['HeapNow']
export type Guess = Schemas['GuessTold']
export type LogTold = Schemas['LogTold']
export type HeapStrip = Schemas['HeapStrip']
export type Trace = Schemas['Trace']
export type Probe = Schemas['ProbeTold']
export type ProbeMade = Schemas['ProbeMade']
export type RodFault = Schemas['RodFault']
export type LoggerSeen = Schemas['LoggerSeen']
export type LoggerColumns = Schemas['LoggerColumns']
export type LoggerTaken = Schemas['LoggerTaken']
export type Spot = Schemas['Spot']
export type Heap = Schemas['Heap']
export type BuildState = Schemas['BuildState']
export type BuildAnew = Schemas['BuildAnew']
export type BuildStep = Schemas['BuildStep']
export type BuildPortion = Schemas['BuildPortion']
export type LayRequest = Schemas['LayRequest']
export type HeapShape = Schemas['HeapShape']
export type BenchRequest = Schemas['BenchRequest']
export type BestStep = Schemas['BestStep']
export type BenchAnswer = Schemas['BenchAnswer']
export type MixAnswer = Schemas['MixAnswer']
export type MixSums = Schemas['MixSums']
export type MixItem = Schemas['MixItem']
export type HeapAmounts = Schemas['HeapAmounts']
export type PrepareAnswer = Schemas['PrepareAnswer']
export type PrepareNeed = Schemas['PrepareNeed']
export type StarterPlan = Schemas['StarterPlan']
export type LayerPlan = Schemas['LayerPlan']
export type Layer = Schemas['Layer']
export type Finding = Schemas['Finding']
export type WorkingLine = Schemas['Line']
export type Recipe = Schemas['Recipe']
export type RecipeItem = Schemas['RecipeItem']
export type ProblemDetails = Schemas['Problem']

/** What was wrong, as it stands on a slip: the field before its reason, a whole sentence as one. */
function sentence({ errors, detail }: ProblemDetails): string {
  const [first] = errors
  if (!first) return detail
  const { field, reason } = first
  return field ? `${field} ${reason}` : reason.charAt(0).toUpperCase() + reason.slice(1)
}

/** The server said no. What it said, with the fields at fault, is in `problem`. */
export class Refused extends Error {
  constructor(readonly problem: ProblemDetails) {
    super(sentence(problem))
    this.name = 'Refused'
  }

  get isStale(): boolean {
    return this.problem.errors.some(({ code }) => code === 'stale')
  }
}

export const api = createClient<paths>({ baseUrl: location.origin })
api.use(listening)
api.use(atTheDoor)
api.use({
  onRequest({ request }) {
    // A header holds no more than plain letters.
    request.headers.set('x-device', encodeURIComponent(device()))
  },
})

/** The data of an answer, or the refusal thrown. */
export async function answered<T>(
  call: Promise<{ data?: T; error?: unknown; response: Response }>,
): Promise<T> {
  const { data, error, response } = await call
  if (response.ok) return data as T
  throw new Refused(error as ProblemDetails)
}
