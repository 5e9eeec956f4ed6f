// Made from docs/api.schema.json by “make types”. Not to be changed by hand.

export type ShapeCorner = 'square' | 'round' | 'bevel'
export type CardBevelAs = '' | 'printed' | 'cut'
export type AppCutterStatus =
  'ready' | 'looking' | 'cutting' | 'wants tool' | 'stopped' | 'no mat' | 'jammed' | 'off' | 'away'
export type AppEventKind = 'table' | 'card' | 'job' | 'inks' | 'stocks' | 'assembly'
export type AppJobKind = 'print' | 'run' | 'load' | 'find' | 'test' | 'closer'
export type AppJobState = 'running' | 'done' | 'stopped' | 'failed'
export type AppNameStage = '' | 'cutting' | 'part' | 'cut' | 'out'
export type AppRights = 'free' | 'personal' | 'credit'
export type AppRunStage = 'waiting' | 'loaded' | 'found' | 'cutting' | 'done' | 'stopped' | 'failed'
export type AppTraceBy = 'transparency' | 'darkness' | 'colours' | 'layers'
export type ArrangeArea = 'face' | 'piece' | 'gap'
export type ArrangeEdge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom'
export type ArrangePattern = 'row' | 'grid' | 'ring'
export type ArrangeSupplyKind = 'photo' | 'paper' | 'shape' | 'lettering' | 'edging'
export type ArrangeTo = 'eachOther' | 'face' | 'first'
export type AssemblyKind = 'print' | 'cut' | 'fold' | 'glue' | 'raise' | 'leaf' | 'tabs' | 'close' | 'send' | 'own'
export type CardBaseKind =
  | 'sideFold'
  | 'topFold'
  | 'triFold'
  | 'zFold'
  | 'accordion'
  | 'gateFold'
  | 'doubleGate'
  | 'tent'
  | 'stepCard'
  | 'popupBox'
  | 'flat'
  | 'easel'
  | 'shaped'
  | 'pocket'
  | 'envelope'
  | 'vFold'
  | 'fromLines'
export type CardRole = 'cut' | 'mountain' | 'valley' | 'perforation' | 'kiss' | 'pen' | 'guide'
export type PathopsUse =
  'piece' | 'printed' | 'leave' | 'cut' | 'mountain' | 'valley' | 'perforation' | 'kiss' | 'pen' | 'guide'
export type DrawingAnswer = 'close' | 'box' | 'lengthen' | 'leave' | 'slit' | 'straight' | 'perforation'
export type PointsBend = 'smooth' | 'corner' | 'straight' | 'curved'
export type CardKind = 'photo' | 'paper' | 'shape' | 'lettering' | 'mat' | 'drawing' | 'slot'
export type CardAs = 'printed' | 'cut' | 'line' | 'carved' | 'welded' | 'trims'
export type CardIslandsHow = '' | 'bridged' | 'leftOut'
export type ShapeID =
  | 'rectangle'
  | 'ellipse'
  | 'scallop'
  | 'tag'
  | 'banner'
  | 'bracket'
  | 'flag'
  | 'tab'
  | 'strip'
  | 'lozenge'
  | 'ticket'
  | 'stub'
  | 'notched'
  | 'spool'
  | 'ribbon'
  | 'luggage'
  | 'stamp'
  | 'arrow'
  | 'pennant'
  | 'leaf'
  | 'flower'
  | 'hexagon'
  | 'plus'
  | 'heart'
  | 'star'
  | 'arch'
  | 'lancet'
  | 'house'
  | 'shield'
  | 'dome'
  | 'triangle'
  | 'drop'
  | 'egg'
  | 'speech'
  | 'bubble'
  | 'bookmark'
  | 'divider'
  | 'free'
export type CardAlign = 'left' | 'centre' | 'right' | 'justify'
export type CardFeature =
  | 'swashes'
  | 'noLigatures'
  | 'rareLigatures'
  | 'oldFigures'
  | 'liningFigures'
  | 'evenFigures'
  | 'smallCapitals'
  | 'fractions'
  | 'noAlternates'
export type CardStand = '' | 'raised' | 'lowered'
export type CardColourBy = 'line' | 'word' | 'letter'
export type CardStance = '' | 'upright' | 'sheared'
export type CardWarpForm = 'arch' | 'bulge' | 'flag' | 'wedge'
export type EdgingSide = '' | 'top' | 'right' | 'bottom' | 'left'
export type EdgingCorner = '' | 'mitre' | 'piece' | 'turn'
export type CardTakes = 'photo' | 'words'
export type CardTierRule = '' | 'fan' | 'strips' | 'grid'
export type CardLie = 'portrait' | 'landscape'
export type CardTurning = 'upright' | 'quarters' | 'freely'
export type CardMarks = 'machine' | 'hand' | 'none'
export type CardDifferBy = 'stock' | 'photo' | 'there'
export type LetteringEmbedding = 'installable' | 'editable' | 'print' | 'restricted'
export type NetSide = 'outside' | 'inside'
export type CheckID =
  | 'runsOff'
  | 'nearEdge'
  | 'smallWords'
  | 'overfull'
  | 'missingLetters'
  | 'openSlots'
  | 'sampleWords'
  | 'looseMiddles'
  | 'thinParts'
  | 'fallsApart'
  | 'looseDots'
  | 'noBleed'
  | 'overFold'
  | 'resolution'
  | 'dull'
  | 'changed'
  | 'nearColours'
  | 'noInk'
  | 'doubledLines'
  | 'nearCuts'
  | 'openCut'
  | 'shortCuts'
  | 'hiddenThings'
  | 'glued'
  | 'sticksOut'
  | 'meets'
  | 'hidden'
  | 'foldRoom'
  | 'onNothing'
  | 'glueThrough'
  | 'leans'
  | 'insertLarge'
  | 'contrast'
  | 'steppedEdges'
  | 'dullPhoto'
  | 'noRoom'
  | 'laidOtherwise'
  | 'unregistered'
  | 'tooFew'
  | 'thick'
  | 'missing'
  | 'rights'
  | 'credits'
  | 'fontRights'
  | 'sameWords'
  | 'nameFits'
  | 'namePictures'
  | 'emptyFields'
  | 'nameTwice'
export type CheckWeight = 'note' | 'caution' | 'stop'
export type Command =
  | AddBridge
  | NetAddLiner
  | NetAddLines
  | AddMat
  | AddPoint
  | NetAddStrip
  | AddWindow
  | BandBehind
  | BendPoints
  | Carve
  | ChangeStep
  | CleanOutline
  | CopyToFaces
  | NetCoverPanels
  | CropPhoto
  | CropToOutline
  | CutRound
  | Differ
  | Divide
  | DivideOpening
  | DrawStroke
  | DropBridge
  | DuplicateItems
  | EditPhoto
  | FillOpening
  | FillWords
  | FitNames
  | FitTo
  | FrameOpenings
  | FreeBridges
  | GroupItems
  | Grow
  | GrowOpening
  | HideItems
  | JoinPoints
  | KeepOverlap
  | LayCutOut
  | LayNames
  | LayPieces
  | LayTraced
  | LayWords
  | LeaveSo
  | LettersApart
  | LineUp
  | LockItems
  | LoosenPieces
  | MakeFeature
  | MakeField
  | MakeOneOutline
  | MakeSlots
  | MakeTiers
  | MatchSize
  | MirrorItems
  | NetMirrorLines
  | MoveBridge
  | MoveHandle
  | MoveItems
  | MovePoints
  | NameColumn
  | NameGroup
  | NameItem
  | PasteLook
  | PlaceItems
  | PlaceSketch
  | PlaceSupply
  | PutOn
  | PutOnFace
  | Recolour
  | RemoveItems
  | NetRemoveLines
  | RemoveNames
  | RemovePoints
  | RenameCard
  | Repaper
  | RepeatItems
  | NetRepeatLines
  | ResizeItems
  | Restack
  | RoundCorners
  | RoundPoints
  | RubOut
  | SetBackground
  | SetBase
  | SetCell
  | SetEdging
  | SetEnds
  | SetFill
  | SetForm
  | SetInsert
  | SetLook
  | SetMade
  | SetMat
  | SetNames
  | SetOpening
  | SetRim
  | SetRole
  | SetRow
  | SheetSetSheets
  | SetText
  | SetTiers
  | SetWindow
  | SetWords
  | ShowName
  | SimplifyOutline
  | SpaceOut
  | SplitPoint
  | StepInStack
  | Stretch
  | StyleLetters
  | SwapPictures
  | TakeForm
  | SheetTiePieces
  | TurnItems
  | UngroupItems
  | UntiePieces
  | Weld
  | WidenToFace
export type FreehandTip = 'pen' | 'marker' | 'chisel'
export type TracingBehind = '' | 'filled' | 'hole'
export type TypesetLie = 'straight' | 'box' | 'arc' | 'circle' | 'line' | 'arch' | 'bulge' | 'flag' | 'wedge'
export type CleanformKind = 'rectangle' | 'rounded' | 'circle' | 'ellipse' | 'polygon' | 'star'
export type NetEye = 'upright' | 'level' | 'table'
export type MeasureUnit = 'in' | 'mm'
export type SceneSharpness = 'sharp' | 'soft' | 'coarse'
export type SheetDirection = '' | 'grainLong' | 'grainShort' | 'oneWayUp'

export interface API {}
export interface AddBridge {
  id: string
  to: Point
  do: 'addBridge'
}
export interface Point {
  x: number
  y: number
}
export interface AddMat {
  ids: string[]
  width: number
  corner: ShapeCorner
  solid?: boolean
  below?: number
  form?: string
  stock: string
  colour?: string
  do: 'addMat'
}
export interface AddPoint {
  id: string
  after: PointRef
  at: number
  do: 'addPoint'
}
export interface PointRef {
  ring: number
  node: number
}
export interface AddWindow {
  window: Window
  stock: string
  lift?: number
  as?: CardBevelAs
  bevel?: number
  colour?: string
  second?: string
  do: 'addWindow'
}
export interface Window {
  of: string[]
  overlap: number
  width: number
  below?: number
  corner: ShapeCorner
  bevel?: number
}
export interface Art {
  id: string
  name: string
  width: number
  height: number
  parts: number
  ships?: boolean
}
export interface AssemblyHandCut {
  item: string
  name: string
  stock: string
  width: number
  height: number
  sheet: number
  says: string
}
export interface AssemblyLeft {
  id: string
  title: string
}
export interface AssemblyMaterial {
  name: string
  says: string
}
export interface AssemblyMeasure {
  name: string
  mm: number
}
export interface AssemblyStep {
  id: string
  kind: AssemblyKind
  title: string
  says: string
  does: string
  why: string
  needs: string[]
  piece?: string
  on?: string
  face?: string
  foam?: number
  pads?: number
  desk: AssemblyThing[]
  measures: AssemblyMeasure[]
  minutes: number
  changed?: boolean
  with?: string[]
}
export interface AssemblyThing {
  name: string
  says: string
  item?: string
  sheet?: number
  made?: string
}
export interface AssemblyView {
  revision: number
  cards: number
  steps: AssemblyStep[]
  minutes: number
  takes: string[]
  materials: AssemblyMaterial[]
  hand: AssemblyHandCut[]
  out: AssemblyLeft[]
  done: string[]
}
export interface BandBehind {
  id: string
  colour: string
  do: 'bandBehind'
}
export interface Base {
  kind: CardBaseKind
  width: number
  height: number
  stock: string
  measures?: {
    [k: string]: number
  }
  lines?: OwnLine[]
  drawn?: DrawnBase
}
export interface OwnLine {
  role: CardRole
  from: Point
  to: Point
  order?: number
}
export interface DrawnBase {
  name: string
  width: number
  height: number
  outline: string
  lines: DrawnLine[]
  leaves: DrawnLeaf[]
}
export interface DrawnLine {
  role: CardRole
  path: string
  slit?: boolean
}
export interface DrawnLeaf {
  box: Rect
  outside: string
  inside: string
  outsideTurn?: number
  insideTurn?: number
}
export interface Rect {
  x: number
  y: number
  w: number
  h: number
}
export interface BaseAsk {
  unit?: string
  lines: {
    [k: string]: PathopsUse
  }
  filled: PathopsUse
  insideUp: boolean
  meet: number
  answers: {
    [k: string]: DrawingAnswer
  }
  leaves: DrawingLeaf[]
  stock: string
  name: string
}
export interface DrawingLeaf {
  at: Point
  outside: string
  inside: string
  outsideTurn: number
  insideTurn: number
}
export interface BendPoints {
  id: string
  points: PointRef[]
  to: PointsBend
  do: 'bendPoints'
}
export interface Border {
  of: string
  width: number
  corner: ShapeCorner
  solid?: boolean
  below?: number
  form?: string
  hollow?: number
  dx?: number
  dy?: number
}
export interface Bridge {
  letter?: number
  ring: number
  at: number
}
export interface Brushed {
  points: Point[]
  radius: number
}
export interface ByValue {
  cell: string
  means: string
  pixelWidth?: number
  pixelHeight?: number
}
export interface Card {
  schema: number
  title: string
  base: Base
  faces: Face[]
  nextId: number
  laid?: Laid[]
  ties?: Tie[]
  insert?: Insert
  steps?: StepChange[]
  left?: LeftSo[]
  sheets?: SheetSetup
  names?: Names
}
export interface Face {
  id: string
  items: Item[]
  groups?: Group[]
  covered?: PanelMats
}
export interface Item {
  id: string
  name: string
  kind: CardKind
  on?: string
  group?: string
  locked?: boolean
  hidden?: boolean
  byHand?: boolean
  background?: boolean
  place: Place
  made: Made
  fill: Fill
  look?: Look
  photo?: Print
  form?: Form
  words?: Words
  lines?: Lines
  mat?: Border
  tier?: number
  feature?: boolean
  cover?: Cover
  art?: string
  window?: Window
  edging?: Edging
  slot?: Waits
  bridges?: Bridge[]
}
export interface Place {
  x: number
  y: number
  turn: number
  mirrored?: boolean
}
export interface Made {
  as: CardAs
  stock?: string
  lift?: number
  bleed?: number
  free?: boolean
  thicken?: boolean
  islands?: Islands
}
export interface Islands {
  how?: CardIslandsHow
  each?: number
  width?: number
  foot?: number
  inLine?: boolean
}
export interface Fill {
  colour?: string
  paper?: string
  scale?: number
  turn?: number
  shiftX?: number
  shiftY?: number
  gradient?: Gradient
}
export interface Gradient {
  kind: string
  fromX: number
  fromY: number
  toX: number
  toY: number
  stops: Stop[]
}
export interface Stop {
  at: number
  colour: string
  clear?: number
}
export interface Look {
  clear?: number
  line?: InkLine
  shadow?: Shadow
  tint?: Tint
  reflection?: Reflection
  raised?: Raised
}
export interface InkLine {
  colour: string
  width: number
  dashed?: boolean
  outside?: boolean
}
export interface Shadow {
  distance: number
  angle: number
  blur: number
  spread?: number
  opacity: number
  colour: string
}
export interface Tint {
  colour: string
  strength: number
}
export interface Reflection {
  gap: number
  length: number
  opacity: number
}
export interface Raised {
  width: number
  strength: number
}
export interface Print {
  picture: string
  pixelWidth: number
  pixelHeight: number
  width: number
  height: number
  opening?: Form
  fit?: boolean
  zoom?: number
  shiftX?: number
  shiftY?: number
  rim?: Rim
  edits?: Edit[]
}
export interface Form {
  outline: ShapeID
  width: number
  height: number
  corner?: ShapeCorner
  radius?: number
  path?: string
  ends?: number
}
export interface Rim {
  width: number
  solid?: boolean
  bays?: number
}
export interface Edit {
  light?: Light
  right?: Right
  tone?: Tone
  lean?: Lean
  corners?: Corners
  eyes?: RedEye[]
  cutOut?: CutOut
  filled?: Filled
  copied?: Copied
  wider?: Wider
  of?: CutOut
}
export interface Light {
  brightness?: number
  contrast?: number
  highlights?: number
  shadows?: number
  saturation?: number
  lively?: number
  warmth?: number
  tint?: number
  sharpness?: number
  softness?: number
  smooth?: number
}
export interface Right {
  black?: number
  white?: number
  gamma?: number
  red?: number
  blue?: number
}
export interface Tone {
  colour: string
  amount: number
}
export interface Lean {
  degrees: number
}
export interface Corners {
  /**
   * @minItems 4
   * @maxItems 4
   */
  at: [Point, Point, Point, Point]
}
export interface RedEye {
  x: number
  y: number
  radius: number
}
export interface CutOut {
  ground?: PlainGround
  subject?: Subject
  within?: Point[]
  paint?: Painted[]
  softness?: number
  out?: number
  keep?: number
  rest?: boolean
}
export interface PlainGround {
  at: Point[]
  tolerance: number
  everywhere?: boolean
}
export interface Subject {
  stays?: Brushed[]
  goes?: Brushed[]
  round?: Point[]
}
export interface Painted {
  points: Point[]
  radius: number
  in?: boolean
  soft?: boolean
}
export interface Filled {
  of?: CutOut
  strokes?: Brushed[]
  seed?: number
}
export interface Copied {
  points: Point[]
  radius: number
  from: Point
  soft?: boolean
}
export interface Wider {
  left?: number
  top?: number
  right?: number
  bottom?: number
  seed?: number
}
export interface Words {
  text: string
  font: string
  size: number
  leading: number
  spacing: number
  align: CardAlign
  features?: CardFeature[]
  runs?: Run[]
  fields?: Field[]
  colours?: string[]
  colourBy?: CardColourBy
  tie?: number
  bar?: number
  box?: TextBox
  path?: TextPath
  warp?: Warp
}
export interface Run {
  from: number
  to: number
  font?: string
  scale?: number
  spacing?: number
  colour?: string
  kern?: number
  stand?: CardStand
  features?: CardFeature[]
  alternate?: number
}
export interface Field {
  from: number
  to: number
  column: string
  before?: string
  after?: string
  style?: Style
}
export interface Style {
  font?: string
  scale?: number
  spacing?: number
  colour?: string
  kern?: number
  stand?: CardStand
  features?: CardFeature[]
  alternate?: number
}
export interface TextBox {
  width: number
  height?: number
  fit?: boolean
  least?: number
  most?: number
  lines?: number
  whole?: boolean
  unwrapped?: boolean
  hyphenate?: boolean
}
export interface TextPath {
  radius?: number
  bend?: number
  line?: string
  under?: boolean
  turned?: boolean
  start?: number
  even?: boolean
  away?: number
  letters?: CardStance
}
export interface Warp {
  form: CardWarpForm
  amount: number
}
export interface Lines {
  role: CardRole
  path: string
  width: number
  height: number
}
export interface Cover {
  panel: number
  layer: number
}
export interface Edging {
  motif: string
  depth: number
  length?: number
  count?: number
  inward?: boolean
  side?: EdgingSide
  corner?: EdgingCorner
  open?: number
  seed?: number
}
export interface Waits {
  takes: CardTakes
  words?: Words
  fill: Fill
  made: Made
}
export interface Group {
  id: string
  name: string
  in?: string
  tiers?: Tiers
}
export interface Tiers {
  rule?: CardTierRule
  count: number
  rows?: number
  step: number
  turn?: number
  x: number
  y: number
  foam: number
  edge?: number
  edgeColour?: string
}
export interface PanelMats {
  layers: PanelLayer[]
  panels?: number
}
export interface PanelLayer {
  margin: number
  stocks: string[]
  papers?: string[]
}
export interface Laid {
  piece: string
  sheet: number
  size?: string
  place: Place
}
export interface Tie {
  pieces: Laid[]
}
export interface Insert {
  stock: string
  less: number
}
export interface StepChange {
  id: string
  own?: boolean
  title?: string
  does?: string
  out?: boolean
  after?: string
  into?: string
}
export interface LeftSo {
  check: string
  item?: string
  why: string
}
export interface SheetSetup {
  size: string
  lie: CardLie
  margin: number
  between: number
  turning: CardTurning
  marks: CardMarks
  borderless?: boolean
  share?: boolean
  unmarked?: string[]
  cards?: number
}
export interface Names {
  from?: string
  columns: string[]
  rows: NameRow[]
  nextRow: number
  shown: string
  laid?: boolean
  differs?: Differs[]
}
export interface NameRow {
  id: string
  cells: string[]
  out?: boolean
  said?: {
    [k: string]: string
  }
  smaller?: boolean
  lines?: number
}
export interface Differs {
  item: string
  what: CardDifferBy
  column: string
  values?: ByValue[]
}
export interface CardIn {
  id: string
  notes: string[]
}
export interface CardRef {
  id: string
}
export interface Caret {
  at: Point
  up: Point
}
export interface Carve {
  ids: string[]
  do: 'carve'
}
export interface Catalogue {
  stocks: Stock[]
  stocksAre: string
  trades: Trade[]
  envelopes: Trade[]
  foam: number[]
  papers: Paper[]
  fonts: Font[]
  fontFiles: string[]
  encodings: string[]
  editsForAny: string[]
  sizes: SheetSize[]
  edgings: Motif[]
  firstDepth: number
  bases: NetKind[]
  shapes: Ready[]
  setup: SheetSetup
  first: Firsts
  mark: SheetMarkForm
  checks: Check[]
  formats: Format[]
}
export interface Stock {
  id: string
  name: string
  colour: string
  weight: number
  thickness: number
  coated?: boolean
  pattern?: string
  noInk?: boolean
  least?: number
  price?: number
  hidden?: boolean
  own?: boolean
}
export interface Trade {
  name: string
  family: string
  width: number
  height: number
}
export interface Paper {
  id: string
  name: string
  ground: string
  width: number
  height: number
  marks?: Mark[]
  picture?: string
  pixelWidth?: number
  mirrored?: boolean
  own?: boolean
  hidden?: boolean
}
export interface Mark {
  path: string
  colour: string
  clear?: number
}
export interface Font {
  id: string
  name: string
  ascent: number
  descent: number
  stem: number
  joined?: boolean
  features: CardFeature[]
  own?: boolean
  licence?: string
  licenceURL?: string
  copyright?: string
  embedding?: LetteringEmbedding
}
export interface SheetSize {
  id: string
  name: string
  width: number
  height: number
  own?: boolean
}
export interface Motif {
  id: string
  name: string
  ratio: number
  preview: string
  own?: boolean
  hidden?: boolean
}
export interface NetKind {
  id: CardBaseKind
  name: string
  lower: string
  says: string
  small: Net
  insert: boolean
  drawing: boolean
}
export interface Net {
  width: number
  height: number
  lines: NetLine[]
  faces: NetFace[]
  edge: string
  closed: Rect
  stands?: boolean
}
export interface NetLine {
  role: CardRole
  from: Point
  to: Point
  main?: boolean
  stage?: number
  stop?: number
  on?: boolean
  slit?: boolean
}
export interface NetFace {
  id: string
  name: string
  side: NetSide
  width: number
  height: number
  /**
   * the six numbers of SVG’s matrix()
   */
  onSheet: [number, number, number, number, number, number]
  /**
   * the six numbers of SVG’s matrix()
   */
  onMap: [number, number, number, number, number, number]
}
export interface Ready {
  id: string
  name: string
  outline: ShapeID
  corner?: ShapeCorner
  radius?: number
  width: number
  height: number
  tray: boolean
  opening?: string
  preview: string
}
export interface Firsts {
  photo: string
  paper: string
  piece: string
  bleed: number
  ink: string
  islands: Islands
  rim: Rim
}
export interface SheetMarkForm {
  ring: number
  stroke: number
  dot: number
}
export interface Check {
  id: CheckID
  reads: string
  title: string
  matters: string
}
export interface Format {
  id: string
  name: string
  extensions: string[]
  mime: string
}
export interface ChangeStep {
  step: StepChange
  do: 'changeStep'
}
export interface CheckView {
  revision: number
  findings: Finding[]
  sending: NetSending
  letter: Post
  tied?: Tied
  post: string
  credits: Credits
}
export interface Finding {
  check: CheckID
  weight: CheckWeight
  face: string
  item?: string
  row?: string
  why: string
  at?: Rect
  left?: string
  by: number
  mends?: Mend[]
}
export interface Mend {
  says: string
  do?: Command[]
  paper?: SizeOf
}
export interface NetAddLiner {
  stock: string
  paper: string
  do: 'addLiner'
}
export interface NetAddLines {
  lines: OwnLine[]
  do: 'addLines'
}
export interface NetAddStrip {
  from: number
  to: number
  up: number
  out: number
  do: 'addStrip'
}
export interface CleanOutline {
  id: string
  do: 'cleanOutline'
}
export interface CopyToFaces {
  ids: string[]
  faces: string[]
  fit?: boolean
  do: 'copyToFaces'
}
export interface NetCoverPanels {
  faces: string[]
  layers: PanelLayer[]
  do: 'coverPanels'
}
export interface CropPhoto {
  id: string
  fit: boolean
  zoom: number
  shiftX: number
  shiftY: number
  do: 'cropPhoto'
}
export interface CropToOutline {
  photo: string
  by: string
  do: 'cropToOutline'
}
export interface CutRound {
  id: string
  edge: string
  rim?: Rim
  do: 'cutRound'
}
export interface Differ {
  item: string
  what: CardDifferBy
  column: string
  values?: ByValue[]
  do: 'differ'
}
export interface Divide {
  ids: string[]
  do: 'divide'
}
export interface DivideOpening {
  id: string
  columns: number
  rows: number
  gap: number
  do: 'divideOpening'
}
export interface DrawStroke {
  face: string
  touches: Touch[]
  tip: FreehandTip
  weight: number
  colour: string
  opacity: number
  machine?: boolean
  with?: string
  do: 'drawStroke'
}
export interface Touch {
  x: number
  y: number
  pressure: number
}
export interface DropBridge {
  id: string
  bridge: number
  do: 'dropBridge'
}
export interface DuplicateItems {
  ids: string[]
  dx: number
  dy: number
  do: 'duplicateItems'
}
export interface EditPhoto {
  ids: string[]
  edits: Edit[]
  do: 'editPhoto'
}
export interface FillOpening {
  id: string
  picture: string
  pixelWidth: number
  pixelHeight: number
  name?: string
  atX?: number
  atY?: number
  edits?: Edit[]
  edge?: string
  do: 'fillOpening'
}
export interface FillWords {
  id: string
  text: string
  do: 'fillWords'
}
export interface FitNames {
  id: string
  do: 'fitNames'
}
export interface FitTo {
  id: string
  area: ArrangeArea
  less: number
  do: 'fitTo'
}
export interface FrameOpenings {
  id: string
  edge: string
  tuck: number
  do: 'frameOpenings'
}
export interface FreeBridges {
  id: string
  do: 'freeBridges'
}
export interface GroupItems {
  ids: string[]
  name?: string
  do: 'groupItems'
}
export interface Grow {
  ids: string[]
  by: number
  corner: ShapeCorner
  do: 'grow'
}
export interface GrowOpening {
  ids: string[]
  by: number
  corner: ShapeCorner
  do: 'growOpening'
}
export interface HideItems {
  ids: string[]
  hidden: boolean
  do: 'hideItems'
}
export interface JoinPoints {
  id: string
  a: PointRef
  b: PointRef
  do: 'joinPoints'
}
export interface KeepOverlap {
  ids: string[]
  do: 'keepOverlap'
}
export interface LayCutOut {
  id: string
  edge: string
  rim?: Rim
  lift?: number
  behind?: TracingBehind
  do: 'layCutOut'
}
export interface LayNames {
  all: boolean
  do: 'layNames'
}
export interface LayPieces {
  pieces: Laid[]
  do: 'layPieces'
}
export interface LayTraced {
  id: string
  parts: TracedPart[]
  as: CardAs
  do: 'layTraced'
}
export interface TracedPart {
  colour: string
  path: string
}
export interface LayWords {
  id: string
  lie: TypesetLie
  along?: string
  do: 'layWords'
}
export interface LeaveSo {
  check: string
  item?: string
  why: string
  do: 'leaveSo'
}
export interface LettersApart {
  id: string
  do: 'lettersApart'
}
export interface LineUp {
  ids: string[]
  edges: ArrangeEdge[]
  to: ArrangeTo
  do: 'lineUp'
}
export interface LockItems {
  ids: string[]
  locked: boolean
  do: 'lockItems'
}
export interface LoosenPieces {
  pieces: string[]
  do: 'loosenPieces'
}
export interface MakeFeature {
  id: string
  group: string
  margin: number
  lift: number
  do: 'makeFeature'
}
export interface MakeField {
  id: string
  from: number
  to: number
  column: string
  before?: string
  after?: string
  do: 'makeField'
}
export interface MakeOneOutline {
  id: string
  do: 'makeOneOutline'
}
export interface MakeSlots {
  ids: string[]
  do: 'makeSlots'
}
export interface MakeTiers {
  id: string
  tiers: Tiers
  do: 'makeTiers'
}
export interface MatchSize {
  ids: string[]
  width: boolean
  height: boolean
  do: 'matchSize'
}
export interface MirrorItems {
  ids: string[]
  level: boolean
  face: boolean
  copy: boolean
  do: 'mirrorItems'
}
export interface NetMirrorLines {
  level: boolean
  do: 'mirrorLines'
}
export interface MoveBridge {
  id: string
  bridge: number
  to: Point
  do: 'moveBridge'
}
export interface MoveHandle {
  id: string
  point: PointRef
  out?: boolean
  to: Point
  alone?: boolean
  do: 'moveHandle'
}
export interface MoveItems {
  ids: string[]
  dx: number
  dy: number
  do: 'moveItems'
}
export interface MovePoints {
  id: string
  points: PointRef[]
  dx: number
  dy: number
  do: 'movePoints'
}
export interface NameColumn {
  column?: string
  name: string
  do: 'nameColumn'
}
export interface NameGroup {
  face: string
  id: string
  name: string
  do: 'nameGroup'
}
export interface NameItem {
  id: string
  name: string
  do: 'nameItem'
}
export interface PasteLook {
  from: string
  ids: string[]
  do: 'pasteLook'
}
export interface PlaceItems {
  face: string
  items: Item[]
  groups?: Group[]
  around?: Point
  along?: boolean
  do: 'placeItems'
}
export interface PlaceSketch {
  face: string
  width: number
  height: number
  items: Item[]
  groups?: Group[]
  do: 'placeSketch'
}
export interface PlaceSupply {
  face: string
  kind: ArrangeSupplyKind
  id: string
  name?: string
  pixelWidth?: number
  pixelHeight?: number
  edge?: string
  at?: Point
  stock?: string
  colour?: string
  along?: boolean
  do: 'placeSupply'
}
export interface PutOn {
  ids: string[]
  on: string
  do: 'putOn'
}
export interface PutOnFace {
  ids: string[]
  face: string
  copy?: boolean
  do: 'putOnFace'
}
export interface Recolour {
  from: string[]
  to: string
  ids?: string[]
  do: 'recolour'
}
export interface RemoveItems {
  ids: string[]
  do: 'removeItems'
}
export interface NetRemoveLines {
  lines: number[]
  do: 'removeLines'
}
export interface RemoveNames {
  rows: string[]
  do: 'removeNames'
}
export interface RemovePoints {
  id: string
  points: PointRef[]
  do: 'removePoints'
}
export interface RenameCard {
  title: string
  do: 'renameCard'
}
export interface Repaper {
  from: string
  to: string
  ids?: string[]
  do: 'repaper'
}
export interface RepeatItems {
  ids: string[]
  pattern: ArrangePattern
  count: number
  rows?: number
  dx?: number
  dy?: number
  turn?: number
  grow?: number
  radius?: number
  sweep?: number
  upright?: boolean
  do: 'repeatItems'
}
export interface NetRepeatLines {
  count: number
  dx: number
  dy: number
  do: 'repeatLines'
}
export interface ResizeItems {
  ids: string[]
  fx: number
  fy: number
  about: Point
  do: 'resizeItems'
}
export interface Restack {
  id: string
  above: string
  do: 'restack'
}
export interface RoundCorners {
  ids: string[]
  radius: number
  do: 'roundCorners'
}
export interface RoundPoints {
  id: string
  points: PointRef[]
  radius: number
  do: 'roundPoints'
}
export interface RubOut {
  face: string
  touches: Touch[]
  width: number
  whole?: boolean
  do: 'rubOut'
}
export interface SetBackground {
  faces: string[]
  fill: Fill
  picture?: GroundPicture
  do: 'setBackground'
}
export interface GroundPicture {
  id: string
  pixelWidth: number
  pixelHeight: number
  zoom?: number
  shiftX?: number
  shiftY?: number
  edits?: Edit[]
}
export interface SetBase {
  base: Base
  do: 'setBase'
}
export interface SetCell {
  row?: string
  column: string
  text: string
  do: 'setCell'
}
export interface SetEdging {
  ids: string[]
  edging?: Edging
  do: 'setEdging'
}
export interface SetEnds {
  ids: string[]
  ends: number
  do: 'setEnds'
}
export interface SetFill {
  ids: string[]
  fill: Fill
  do: 'setFill'
}
export interface SetForm {
  id: string
  corner: ShapeCorner
  radius?: number
  do: 'setForm'
}
export interface SetInsert {
  insert?: Insert
  do: 'setInsert'
}
export interface SetLook {
  ids: string[]
  look: Look
  do: 'setLook'
}
export interface SetMade {
  ids: string[]
  made: Made
  do: 'setMade'
}
export interface SetMat {
  id: string
  width: number
  corner: ShapeCorner
  solid?: boolean
  below?: number
  form?: string
  hollow?: number
  dx?: number
  dy?: number
  do: 'setMat'
}
export interface SetNames {
  from?: string
  columns: string[]
  rows: string[][]
  do: 'setNames'
}
export interface SetOpening {
  ids: string[]
  outline: ShapeID
  corner?: ShapeCorner
  radius?: number
  do: 'setOpening'
}
export interface SetRim {
  ids: string[]
  rim?: Rim
  do: 'setRim'
}
export interface SetRole {
  ids: string[]
  role: CardRole
  do: 'setRole'
}
export interface SetRow {
  row: string
  out?: boolean
  said?: {
    [k: string]: string
  }
  smaller?: boolean
  lines?: number
  do: 'setRow'
}
export interface SheetSetSheets {
  sheets: SheetSetup
  do: 'setSheets'
}
export interface SetText {
  id: string
  text: string
  do: 'setText'
}
export interface SetTiers {
  face: string
  group: string
  tiers: Tiers
  do: 'setTiers'
}
export interface SetWindow {
  id: string
  window: Window
  do: 'setWindow'
}
export interface SetWords {
  id: string
  words: Words
  anchor?: Point
  do: 'setWords'
}
export interface ShowName {
  row: string
  do: 'showName'
}
export interface SimplifyOutline {
  id: string
  tolerance: number
  do: 'simplifyOutline'
}
export interface SpaceOut {
  ids: string[]
  down: boolean
  gap?: number
  do: 'spaceOut'
}
export interface SplitPoint {
  id: string
  point: PointRef
  do: 'splitPoint'
}
export interface StepInStack {
  id: string
  up: boolean
  do: 'stepInStack'
}
export interface Stretch {
  ids: string[]
  width: boolean
  height: boolean
  do: 'stretch'
}
export interface StyleLetters {
  id: string
  from: number
  to: number
  font?: string
  scale?: number
  spacing?: number
  kern?: number
  colour?: string
  stand?: CardStand
  alternate?: number
  features?: CardFeature[]
  do: 'styleLetters'
}
export interface SwapPictures {
  a: string
  b: string
  do: 'swapPictures'
}
export interface TakeForm {
  id: string
  kind: CleanformKind
  do: 'takeForm'
}
export interface SheetTiePieces {
  pieces: Laid[]
  do: 'tiePieces'
}
export interface TurnItems {
  ids: string[]
  degrees: number
  about: Point
  do: 'turnItems'
}
export interface UngroupItems {
  ids: string[]
  do: 'ungroupItems'
}
export interface UntiePieces {
  pieces: string[]
  do: 'untiePieces'
}
export interface Weld {
  ids: string[]
  do: 'weld'
}
export interface WidenToFace {
  id: string
  do: 'widenToFace'
}
export interface SizeOf {
  stock: string
  size: string
}
export interface NetSending {
  trade: string
  width: number
  height: number
  takes: number
}
export interface Post {
  name: string
  width: number
  height: number
  thick: number
  weight: number
  oblong?: boolean
}
export interface Tied {
  id: string
  title: string
  width: number
  height: number
}
export interface Credits {
  all: Credit[]
  text: string
  personal: string[]
}
export interface Credit {
  kind: string
  id: string
  name: string
  rights: AppRights
  line?: string
  ships?: boolean
}
export interface ColourSeen {
  colour: string
}
export interface CutApart {
  piece: string
  name: string
  mean: number
  worst: number
  off: boolean
}
export interface CutLine {
  from: Point
  to: Point
}
export interface CutPass {
  name: string
  tool: number
  /**
   * Items: SVG path data, mm
   */
  lines: string[]
  moves: string
  speed: number
  travel: number
  force: number
  length: number
  between: number
  seconds: number
}
export interface CutSettings {
  offset: number
  over: number
  rounds: number
  speed: number
  travel: number
  force: number
  light: number
  dash: number
  hold: number
}
export interface CutterState {
  name: string
  ready: boolean
  state: AppCutterStatus
  why?: string
  /**
   * @minItems 2
   * @maxItems 2
   */
  bed: [number, number]
  /**
   * @minItems 2
   * @maxItems 2
   */
  corner: [number, number]
  eye?: boolean
  hand?: boolean
  loaded?: boolean
  silent?: boolean
  tool?: number
  mishap?: Mishap
}
export interface Mishap {
  off: boolean
  noMat: boolean
  smudged: number[]
  missing: number[]
  slip: number
  lost: number
  jam: number
}
export interface Differing {
  item: string
  name: string
  what: CardDifferBy[]
}
export interface DrawingFound {
  box: Rect
  edge: string
  lines: DrawingLine[]
  panels: DrawingPanel[]
  leaves: DrawingLeaf[]
  questions: DrawingQuestion[]
  notes: string[]
  base?: Base
  folds: boolean
  why: string[]
}
export interface DrawingLine {
  role: CardRole
  path: string
}
export interface DrawingPanel {
  ring: string
  at: Point
  leaf: number
}
export interface DrawingQuestion {
  id: string
  at: Point
  says: string
  options: DrawingAnswer[]
  answer: DrawingAnswer
}
export interface EditsAsk {
  edits: Edit[]
}
export interface Event {
  kind: AppEventKind
  card?: string
  revision?: number
  job?: Job
}
export interface Job {
  id: string
  kind: AppJobKind
  card: string
  sheet?: number
  state: AppJobState
  progress: number
  note?: string
  run?: RunInfo
  paused?: boolean
  needs?: number
  lies?: Found
  pictures?: string[]
}
export interface RunInfo {
  pass: number
  path: number
  x: number
  y: number
  seconds: number
}
export interface Found {
  /**
   * the six numbers of SVG’s matrix()
   */
  at: [number, number, number, number, number, number]
  marks: Seen[]
  shiftX: number
  shiftY: number
  turn: number
  stretchX: number
  stretchY: number
  left: number
}
export interface Seen {
  number: number
  at: Point
  used: boolean
  left: number
  why?: string
}
export interface Fit {
  area: ArrangeArea
  name: string
  less: number
  box: Rect
}
export interface FoldPanel {
  ring: string
  outside?: string
  inside?: string
}
export interface FoldView {
  base: Base
  panels: FoldPanel[]
  frames: [number, number, number, number, number, number, number, number, number, number, number, number][][]
  verdict: NetVerdict
  eye: NetEye
  layers: number
  edge: NetLayer[]
  bent: {
    [k: string]: NetPiece[]
  }
  homes: {
    [k: string]: number
  }
  measures: NetMeasure[]
  limit: string
  sending: NetSending
  tied?: Tied
  findings: Finding[]
  waiting?: {
    [k: string]: number
  }
}
export interface NetVerdict {
  folds: boolean
  gap: number
  flat: boolean
  why: string[]
}
export interface NetLayer {
  panel: number
  from: number
  to: number
  depth: number
}
export interface NetPiece {
  panel: number
  path: string
}
export interface NetMeasure {
  id: string
  name: string
  unit: string
  names?: string[]
  min: number
  max: number
  at: number
}
export interface FromSketch {
  title: string
  pictures: string[]
}
export interface Gap {
  rect: Rect
  centre: Point
  radius: number
}
export interface Incoming {
  id: string
  name: string
  width: number
  height: number
  units?: {
    [k: string]: number
  }
  filled: number
  pictures: number
  lines: LineKind[]
  notes: string[]
}
export interface LineKind {
  key: string
  layer: string
  colour: string
  count: number
  closed: number
  dashes: number
  likely: PathopsUse
}
export interface IncomingPaper {
  picture: string
  name: string
  width: number
  height: number
  said: boolean
  across: boolean
  down: boolean
}
export interface InkView {
  stock: string
  profile?: string
  toned?: boolean
  off?: number
}
export interface KeptThings {
  face: string
  ids: string[]
  name: string
}
export interface LayArt {
  base: number
  art: string
  face: string
  at?: Point
}
export interface LayDrawing {
  base: number
  drawing: string
  unit?: string
  face: string
  middle: Point
  lines: {
    [k: string]: PathopsUse
  }
  filled: PathopsUse
}
export interface LayoutView {
  revision: number
  title: string
  sheets: SheetView[]
  unlaid: Unlaid[]
  findings: Finding[]
  offer?: SheetSetup
  used: number
  saved: number
  changed?: string
  inked: number
  cost?: number
  seconds: number
}
export interface SheetView {
  number: number
  of: number
  stock: Stock
  size: SheetSize
  margin: number
  pieces: SheetPiece[]
  marks: SheetMark[]
  /**
   * Items: SVG path data, mm
   */
  crops?: string[]
  printed: boolean
  twoSided: boolean
  used: number
  shared?: boolean
  whole?: boolean
  passes: CutPass[]
  state: RunState
  settings: CutSettings
  usual: CutSettings
  beyond?: string
  unregistered?: boolean
}
export interface SheetPiece {
  id: string
  item: string
  row?: string
  name: string
  plain?: string
  face?: string
  /**
   * the six numbers of SVG’s matrix()
   */
  at: [number, number, number, number, number, number]
  box: Rect
  lines: SheetLine[]
  outline: string
  area: number
  place: Place
  byHand?: boolean
  tie?: number
  wrong?: string
}
export interface SheetLine {
  role: CardRole
  path: string
}
export interface SheetMark {
  at: Point
  second?: Point
}
export interface RunState {
  state: AppRunStage
  job?: string
  picture?: string
  why?: string
  done: number
  of: number
  given?: number
  unknown?: boolean
  resumed?: number
  lies?: Found
  rest?: Point
  sent?: boolean
  tests?: number
  apart?: CutApart[]
}
export interface Unlaid {
  id: string
  name: string
  stock: Stock
}
export interface Length {
  mm: number
}
export interface ListRead {
  headings: boolean
  headed: SetNames
  plain: SetNames
  encoding?: string
}
export interface Measure {
  text: string
  unit: MeasureUnit
}
export interface MeasuredStock {
  id: string
  name: string
  colour: string
  weight: number
  thickness: number
  coated?: boolean
  pattern?: string
  noInk?: boolean
  least?: number
  price?: number
  hidden?: boolean
  own?: boolean
  pile?: Pile
}
export interface Pile {
  sheets: number
  together: number
}
export interface NameFault {
  check: CheckID
  item?: string
  short: string
  why: string
}
export interface NameState {
  row: string
  stage: AppNameStage
  short: string
  wrong: NameFault[]
}
export interface NamesOnSheets {
  cards: number
  pieces: number
  sheets: number
  apart: number
  unlaid: number
  seconds: number
}
export interface NamesView {
  revision: number
  rows: NameState[]
  next?: string
  canDiffer: Differing[]
  sheets?: NamesOnSheets
}
export interface NetDirections {
  sheet: string
  works: NetWork[]
  folds: string[]
  net: Net
}
export interface NetWork {
  lay: string
  lines: string[]
}
export interface NetNeighbour {
  id: string
  name: string
  /**
   * the six numbers of SVG’s matrix()
   */
  at: [number, number, number, number, number, number]
  width: number
  height: number
}
export interface NewCard {
  title: string
  base: Base
  sheets?: SheetSetup
}
export interface NewMotif {
  face: string
  item: string
  name: string
}
export interface NewPaper {
  name: string
  picture: string
  width: number
  height: number
  mirrored?: boolean
}
export interface NewSketch {
  title: string
  face?: string
  slots: string[]
  occasion?: string
  tags?: string[]
}
export interface Order {
  face: string
  all: string[]
  seen: string[]
}
export interface OtherCutter {
  name?: string
  address: string
  width: number
  height: number
  /**
   * @minItems 4
   * @maxItems 4
   */
  blind: [number, number, number, number]
  tools?: ToolAt[]
  speed?: number
  force?: number
}
export interface ToolAt {
  tool: number
  across: number
  down: number
}
export interface PhotoLook {
  name: string
  edits: Edit[]
}
export interface Picture {
  id: string
  name: string
  type: string
  width: number
  height: number
  bytes: number
  clear?: boolean
}
export interface PictureFacts {
  palette: string[]
  detailX: number
  detailY: number
}
export interface PlainForm {
  kind: CleanformKind
  points?: number
  off: number
  worst: number
  outline: string
}
export interface PointNode {
  at: Point
  in?: Point
  out?: Point
  smooth?: boolean
}
export interface PointRing {
  closed: boolean
  nodes: PointNode[]
}
export interface Points {
  rings: PointRing[]
  crosses?: boolean
}
export interface PrintView {
  revision: number
  findings: Finding[]
}
export interface Problem {
  type: string
  title: string
  status: number
  detail: string
  field?: string
}
export interface RightSeen {
  right?: Right
}
export interface Scene {
  net: Net
  faces: SceneFace[]
  colours: SceneColourUse[]
  thickness: number
}
export interface SceneFace {
  id: string
  name: string
  side: NetSide
  width: number
  height: number
  /**
   * the six numbers of SVG’s matrix()
   */
  onSheet: [number, number, number, number, number, number]
  /**
   * the six numbers of SVG’s matrix()
   */
  onMap: [number, number, number, number, number, number]
  folds: NetLine[]
  neighbours: NetNeighbour[]
  safe: Rect
  shape: string
  items: SceneItem[]
  groups?: Group[]
  hidden?: SceneHidden[]
  thickness: number
}
export interface SceneItem {
  id: string
  name: string
  kind: CardKind
  role?: CardRole
  on?: string
  piece: boolean
  outline: string
  /**
   * the six numbers of SVG’s matrix()
   */
  at: [number, number, number, number, number, number]
  joined?: CardAs
  /**
   * Items: SVG path data, mm
   */
  islands?: string[]
  bridges?: Strip[]
  clip?: string
  saved?: number
  repeats?: number
  thin?: SceneThin
  box: Rect
  bounds: Rect
  turn: number
  mirrored?: boolean
  group?: string
  cell?: boolean
  locked?: boolean
  ground?: string
  groundPaper?: string
  /**
   * the six numbers of SVG’s matrix()
   */
  groundAt?: [number, number, number, number, number, number]
  tints?: boolean
  fill: Fill
  picture?: ScenePicture
  slot?: CardTakes
  bleed: number
  clear?: number
  tint?: Tint
  /**
   * the six numbers of SVG’s matrix()
   */
  patternAt?: [number, number, number, number, number, number]
  under?: SceneWash[]
  over?: SceneWash[]
  reflection?: SceneReflection
  from: number
  to: number
  lift: number
  words?: SceneWordsSet
  parts?: ScenePart[]
  rest?: string
  with?: string[]
  takesMat: boolean
  freeRatio: boolean
}
export interface Strip {
  path: string
  from: Point
  ring: string
  placed?: boolean
}
export interface SceneThin {
  /**
   * Items: SVG path data, mm
   */
  regions: string[]
  least: number
  bears: number
}
export interface ScenePicture {
  id: string
  pixelWidth: number
  pixelHeight: number
  box: Rect
  least: Point
  cover?: Rect
  ppi: number
  prints: SceneSharpness
}
export interface SceneWash {
  path: string
  colour: string
  opacity: number
  blur?: number
  inside?: boolean
}
export interface SceneReflection {
  /**
   * the six numbers of SVG’s matrix()
   */
  at: [number, number, number, number, number, number]
  from: Point
  to: Point
  opacity: number
}
export interface SceneWordsSet {
  block: Rect
  size: number
  over?: number
  missing?: string
}
export interface ScenePart {
  colour: string
  path: string
}
export interface SceneHidden {
  id: string
  name: string
}
export interface SceneColourUse {
  colour: string
  count: number
  twin?: string
  prints?: string
  seen?: string
  off?: number
}
export interface SceneCut {
  long: number
  thick: number
  thickest: number
  at: number
  strips: SceneCutStrip[]
  folds: SceneCutFold[]
}
export interface SceneCutStrip {
  from: number
  to: number
  upper: number
  lower: number
  foam?: boolean
  colour: string
  face?: string
  item?: string
  name: string
}
export interface SceneCutFold {
  at: number
  upper: number
  lower: number
  ahead: boolean
}
export interface SheetOnHand {
  stock: string
  sizes: string[]
  counts?: {
    [k: string]: number
  }
  direction?: SheetDirection
  borderless?: boolean
}
export interface SheetPrinterReach {
  margin: number
  borderless: string[]
}
export interface SheetScrap {
  stock: string
  width: number
  height: number
}
export interface SheetsTold {
  before: number
  after: number
  unlaid?: number
}
export interface Sketch {
  id: string
  title: string
  face?: string
  kind: CardBaseKind
  width: number
  height: number
  occasion?: string
  tags?: string[]
  photos: number
  words: number
  items: Item[]
  groups?: Group[]
  faceWidth: number
  faceHeight: number
}
export interface StockView {
  id: string
  name: string
  colour: string
  weight: number
  thickness: number
  coated?: boolean
  pattern?: string
  noInk?: boolean
  least?: number
  price?: number
  hidden?: boolean
  own?: boolean
  usual: number
  changed?: boolean
  cut: CutSettings
  asUsual: CutSettings
}
export interface Summary {
  id: string
  title: string
  kind: CardBaseKind
  width: number
  height: number
  stock: string
  revision: number
  changed: string
}
export interface SuppliesIn {
  added: number
  notes: string[]
}
export interface Supply {
  kind: string
  id: string
  name?: string
  tags?: string[]
  favourite?: boolean
  used?: string
  rights?: AppRights
  credit?: string
}
export interface Ticked {
  done: boolean
}
export interface TraceAsk {
  by: AppTraceBy
  level?: number
  colours?: string[]
  tolerance?: number
  count?: number
  under?: boolean
  smooth?: number
  corner?: number
  speck?: number
  outer?: boolean
  usual?: boolean
}
export interface Traced {
  outlines: TracedOutline[]
  level?: number
  says?: string
}
export interface TracedOutline {
  colour: string
  path: string
  parts: number
  nodes: number
  specks: number
}
export interface TrueSize {
  across: number
  down: number
  /**
   * @minItems 2
   * @maxItems 2
   */
  rulers: [number, number]
}
export interface View {
  id: string
  revision: number
  saved: string
  undo?: string
  redo?: string
  card: Card
  scene: Scene
  inks: string
  findings: Finding[]
  made?: string[]
  part?: boolean
  order?: Order[]
}
export interface WayAsk {
  edits: Edit[]
  from: Point
  to: Point
}
export interface WordsAsSet {
  block: Rect
  size: number
  over?: number
  missing?: string
  outline: string
  parts: ScenePart[]
  rest?: string
  carets: Caret[]
}
export interface WordsToSet {
  words: Words
  text?: string
}
