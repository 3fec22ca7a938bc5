import type { components } from './schema'

type Schemas = components['schemas']

export type Brief = Schemas['Brief']
export type BriefVersion = Schemas['BriefVersion']
export type Change = Schemas['Change']
export type Code = Schemas['Code']
export type CodebaseStatus = Omit<Schemas['CodebaseStatus'], 'running' | 'last'> & {
  running: Progress | null
  last: SurveyRecord | null
}
export type Definition = Schemas['Definition']
export type Route = Schemas['RouteRow']
export type Touched = Schemas['Touched']
export type Contract = Schemas['Contract']
export type Resource = Schemas['Resource']
export type OneDefinition = Schemas['OneDefinition']
export type CallEnd = Schemas['CallEnd']
export type Way = Schemas['Way']
export type Page = Schemas['Page']
export type PageShown = Omit<Schemas['PageShown'], 'blocks' | 'regroup'> & {
  blocks: (Omit<Schemas['PageBlock'], 'excerpt'> & { excerpt: Excerpt | null })[]
  regroup: Schemas['Regrouping'] | null
}
export type Excerpt = Schemas['Excerpt']
export type Regrouping = Schemas['Regrouping']
export type ScreenPicture = Schemas['Picture']
export type PictureBox = Schemas['PictureBox']
export type Explained = Schemas['Explained']
export type PastScores = Schemas['PastScores']
export type Stop = Schemas['Stop']
export type ReachPicture = Schemas['ReachPicture']
export type TriedRoute = Schemas['TriedRoute']
export type Tried = Omit<Schemas['Tried'], 'changes'> & {
  changes: (Omit<Schemas['TriedChange'], 'now' | 'then'> & { now: TriedRoute | null; then: TriedRoute | null })[]
}
export type Evidence = Schemas['Evidence']
export type Attempt = Schemas['Attempt']
export type Beside = Schemas['Beside']
export type FindingList = Schemas['List']
export type Listed = Schemas['Listed']
export type Happened = Schemas['Happened']
export type Grid = Schemas['Grid']
export type Built = Schemas['Built']
export type Dependencies = Schemas['Dependencies']
export type Drawing = Schemas['Drawing']
export type Section = Schemas['Section']
export type Block = Schemas['Block']
export type Tag = Schemas['Tag']
export type Tie = Schemas['Tie']
export type Bundle = Schemas['Bundle']
export type Box = Schemas['Box']
export type CharterState = Schemas['CharterState']

/** The architecture that is declared. */
export type Charter = NonNullable<CharterState['charter']>
export type CharterChange = Schemas['CharterChange']
export type Overrule = Schemas['Overrule']
export type Flows = Schemas['Flows']
export type Finding = Schemas['Finding']
export type Home = Omit<Schemas['Home'], 'codebases'> & { codebases: CodebaseStatus[] }
export type Kind = Finding['kind']
export type State = Finding['state']
export type Ledger = Schemas['Ledger']
export type Legibility = Schemas['Legibility']
export type Margin = Omit<Schemas['Margin'], 'score'> & { score: Legibility | null }
export type Desk = Schemas['Desk']
export type OnePart = Schemas['OnePart']
export type Part = Schemas['Part']
export type Names = Schemas['Names']
export type Allowed = Schemas['Allowed']
export type Permitted = Schemas['Permitted']
export type OneShape = Schemas['OneShape']
export type ShapeGroup = Schemas['ShapeGroup']
export type Handed = Schemas['Handed']
export type StateRow = Schemas['StateRow']
export type StateHolder = Schemas['Holder']
export type TextList = Schemas['TextList']
export type TextRow = Schemas['TextRow']
export type Vocabulary = Pick<Names, 'verbs' | 'actions' | 'conventions'>
export type Convention = Names['conventions'][number]
export type Word = Names['words'][number]
export type Reach = Schemas['Reach']
export type PartList = Schemas['PartList']
export type PartOnly = 'duties' | 'twins' | 'unused' | 'untested'
export type PartSort = 'weight' | 'name' | 'lines' | 'takes' | 'offers' | 'duties' | 'uses' | 'users' | 'twins'
export type NewFinding = Schemas['NewFinding']
export type Patch = Schemas['Patch']
export type PlaceHit = Schemas['PlaceHit']
export type Progress = Schemas['Progress']
export type Purpose = Schemas['Purpose']
export type Role = Ledger['roles'][number]
export type Row = Schemas['Row']
export type Rule = Schemas['Rule']
export type Run = Schemas['Run']
export type Settings = Schemas['Settings']
export type Sheet = Schemas['Sheet']
export type Sibling = Schemas['Sibling']
export type Smell = Schemas['Smell']
export type SurveyRecord = Schemas['SurveyRecord']
export type Use = Schemas['Use']

/** One hit of a search in the code. */
export interface Hit {
  line: number
  text: string
  start: number
  end: number
}

/** One line of the answer to a search, sent as it is found. */
export interface SearchLine {
  path?: string
  /** own, tests, or others for what nobody here wrote. */
  sort?: string
  hits?: Hit[]
  /** The file holds more hits than are told. */
  cut?: boolean
  done?: boolean
  files?: number
  total?: number
  read?: number
  more?: boolean
  problem?: string
}
