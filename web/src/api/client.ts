// The client of the API. Every failure is a Fault with a sentence for the
// person; nothing else is thrown from here.
import type {
  Card,
  Catalogue,
  ColourSeen,
  Command,
  CutSettings,
  CutterState,
  Edit,
  FoldView,
  Font,
  Fit,
  Gap,
  Incoming,
  InkView,
  Job,
  TrueSize,
  MeasuredStock,
  Mishap,
  OtherCutter,
  SheetOnHand as OnHand,
  SheetScrap as Scrap,
  AssemblyView,
  BaseAsk,
  ByValue,
  CardIn,
  CardRef,
  CheckView,
  Post,
  SceneCut,
  Credits,
  DrawingFound,
  LayDrawing,
  LayoutView,
  ListRead,
  NamesView,
  NetDirections,
  Art,
  IncomingPaper,
  KeptThings,
  LayArt,
  Motif,
  NewMotif,
  NewPaper,
  Paper,
  SheetPrinterReach,
  NewSketch,
  PhotoLook,
  Picture,
  PictureFacts,
  PlainForm,
  Point,
  Points,
  PrintView,
  Problem,
  RightSeen,
  SheetSetup,
  SheetSize as Size,
  SheetsTold,
  Sketch,
  Stock,
  StockView,
  Summary,
  SuppliesIn,
  Supply,
  TraceAsk,
  Traced,
  View,
  Words,
  WordsAsSet,
} from './types'
import type { Base } from './types'

export class Fault extends Error {
  constructor(
    message: string,
    readonly kind: string,
    readonly field = '',
  ) {
    super(message)
  }
}

const away = 'The program does not answer. Look whether it is still running; nothing that was saved is lost.'

/** What is sent: what lasts reaches the program even though the page goes. */
interface Sending {
  signal?: AbortSignal
  lasts?: boolean
}
/** Up to how many characters may last; browsers allow 64 KB for all that is under way at once. */
const mayLast = 15_000

async function reach(method: string, path: string, body?: unknown, { signal, lasts }: Sending = {}): Promise<Response> {
  const text = body === undefined ? undefined : JSON.stringify(body)
  let res: Response
  try {
    res = await fetch('/api' + path, {
      method,
      keepalive: lasts && (text?.length ?? 0) <= mayLast,
      headers: text === undefined ? {} : { 'Content-Type': 'application/json' },
      body: text,
      signal,
    })
  } catch {
    throw signal?.aborted ? new Fault('Stopped. Nothing was changed.', 'stopped') : new Fault(away, 'away')
  }
  if (!res.ok) throw await fault(res)
  return res
}

/** What is put in one place is put there in the order it was asked for: the last stays. */
const putting = new Map<string, Promise<unknown>>()
function put(path: string, body: unknown): Promise<Response> {
  const send = () => reach('PUT', path, body, { lasts: true })
  const sent = (putting.get(path) ?? Promise.resolve()).then(send)
  const done = sent
    .catch(() => undefined)
    .then(() => {
      if (putting.get(path) === done) putting.delete(path)
    })
  putting.set(path, done)
  return sent
}

async function call<T>(method: string, path: string, body?: unknown, sending?: Sending): Promise<T> {
  const res = method === 'PUT' ? await put(path, body) : await reach(method, path, body, sending)
  return (res.status === 204 || res.headers.get('Content-Length') === '0' ? undefined : await res.json()) as T
}

/** Sends a file as the one of a form. */
async function send<T>(path: string, file: File): Promise<T> {
  const body = new FormData()
  body.append('file', file, file.name)
  let res: Response
  try {
    res = await fetch('/api' + path, { method: 'POST', body })
  } catch {
    throw new Fault(away, 'away')
  }
  if (!res.ok) throw await fault(res)
  return (await res.json()) as T
}

async function fault(res: Response): Promise<Fault> {
  try {
    const p = (await res.json()) as Problem
    return new Fault(p.detail, p.type.replace('urn:sectilis:', ''), p.field)
  } catch {
    return new Fault(`The program answers ${res.status} ${res.statusText}.`, 'fault')
  }
}

/** How a test page is laid, which is of no card. */
const query = (p: SheetSetup) => `?size=${p.size}&lie=${p.lie}`

/** Adds to a query what is set. */
const asked = (parts: Record<string, string | number | boolean | undefined>) => {
  const set = Object.entries(parts).filter(([, v]) => v !== undefined && v !== false && v !== '')
  return set.length ? '?' + set.map(([k, v]) => `${k}=${v === true ? 1 : encodeURIComponent(String(v))}`).join('&') : ''
}

/** Where a run goes on: where it was, or from a path that a person has pointed at. */
export interface GoOn {
  pass?: number
  path?: number
}

export const api = {
  catalogue: () => call<Catalogue>('GET', '/catalogue'),
  cards: (find: string) => call<Summary[]>('GET', '/cards?find=' + encodeURIComponent(find)),
  create: (title: string, base: Base, sheets?: SheetSetup) =>
    call<{ id: string }>('POST', '/cards', { title, base, sheets }),
  copy: (id: string) => call<{ id: string }>('POST', `/cards/${id}/copies`),
  recover: (id: string) => call<View>('POST', `/cards/${id}/recovery`),
  remove: (id: string) => call<void>('DELETE', `/cards/${id}`),
  restore: (id: string) => call<void>('POST', `/cards/${id}/restore`),
  open: (id: string) => call<View>('GET', `/cards/${id}`),
  change: (id: string, base: number, commands: Command[], signal?: AbortSignal) =>
    call<View>('POST', `/cards/${id}/changes`, { base, commands }, { signal, lasts: true }),
  trySheets: (id: string, base: number, commands: Command[]) =>
    call<SheetsTold>('POST', `/cards/${id}/trials/sheets`, { base, commands }),
  attempt: (id: string, base: number, commands: Command[], row = '') =>
    call<View>('POST', `/cards/${id}/trials${asked({ row })}`, { base, commands }),
  gap: (id: string, face: string, at: Point) => call<Gap>('POST', `/cards/${id}/faces/${face}/gaps`, { at }),
  colourAt: async (id: string, face: string, at: Point) =>
    (await call<ColourSeen>('POST', `/cards/${id}/faces/${face}/colours`, { at })).colour,
  fits: (id: string, item: string) => call<Fit[]>('GET', `/cards/${id}/items/${item}/fits`),
  facts: (picture: string) => call<PictureFacts>('GET', `/pictures/${picture}/facts`),
  /** Path data of the forms that a face has for a letter, in letters of 10 mm. */
  letterForms: (font: string, letter: string) =>
    call<string[]>('GET', `/fonts/${font}/letters/${encodeURIComponent(letter)}`),
  /** The plain forms that could stand for the outline of an item. */
  plainForms: (id: string, item: string) => call<PlainForm[]>('GET', `/cards/${id}/items/${item}/forms`),
  points: (id: string, item: string) => call<Points>('GET', `/cards/${id}/items/${item}/points`),
  /** What a picture is after edits, with a longer side of so many pixels. */
  edited: async (picture: string, edits: Edit[], side: number, signal?: AbortSignal) =>
    (await reach('POST', `/pictures/${picture}/edited?side=${side}`, { edits }, { signal })).blob(),
  /** A way between two places of a picture that clings to its edges. */
  way: (picture: string, edits: Edit[], from: Point, to: Point) =>
    call<Point[]>('POST', `/pictures/${picture}/ways`, { edits, from, to }),
  photoLooks: () => call<PhotoLook[]>('GET', '/photolooks'),
  keepPhotoLook: (l: PhotoLook) => call<void>('PUT', '/photolooks', l),
  /** What sets a picture right after edits; nothing where it is. */
  setRight: async (picture: string, edits: Edit[]) =>
    (await call<RightSeen>('POST', `/pictures/${picture}/right`, { edits })).right,
  trace: (picture: string, ask: TraceAsk, signal?: AbortSignal) =>
    call<Traced>('POST', `/pictures/${picture}/traces`, ask, { signal }),
  directions: (id: string, unit: string, parts: number) =>
    call<NetDirections>('GET', `/cards/${id}/directions${asked({ unit, parts })}`),
  prints: (id: string, signal?: AbortSignal) => call<PrintView>('GET', `/cards/${id}/print`, undefined, { signal }),
  /** Makes the envelope of a card, or answers which one is tied to it. */
  makeEnvelope: (id: string) => call<CardRef>('POST', `/cards/${id}/envelope`),
  untie: (envelope: string) => call<void>('DELETE', `/cards/${envelope}/tie`),
  fold: (id: string) => call<FoldView>('GET', `/cards/${id}/fold`),
  undo: (id: string, base: number) => call<View>('POST', `/cards/${id}/undo`, { base }, { lasts: true }),
  redo: (id: string, base: number) => call<View>('POST', `/cards/${id}/redo`, { base }, { lasts: true }),
  measure: async (text: string, unit: string) => (await call<{ mm: number }>('POST', '/measures', { text, unit })).mm,
  setWords: (words: Words, text?: string) => call<WordsAsSet>('POST', '/typesettings', { words, text }),
  trueSize: (p: SheetSetup) => call<TrueSize>('GET', `/printer/correction${query(p)}`),
  measured: (p: SheetSetup, across: number, down: number) =>
    call<TrueSize>('PUT', `/printer/correction${query(p)}`, { across, down }),
  asItComes: () => call<void>('DELETE', '/printer/correction'),
  testPage: (p: SheetSetup, stock: string) => call<Job>('POST', `/printer/tests${query(p)}&stock=${stock}`),
  stocks: () => call<StockView[]>('GET', '/stocks'),
  addStock: (s: MeasuredStock) => call<Stock>('POST', '/stocks', s),
  changeStock: (s: MeasuredStock) => call<void>('PUT', `/stocks/${s.id}`, s),
  keepSizes: (sizes: Size[]) => call<void>('PUT', '/sizes', sizes),
  asStockShips: (id: string) => call<void>('DELETE', `/stocks/${id}`),
  inks: () => call<InkView[]>('GET', '/printer/inks'),
  profile: (stock: string, file: File) => send<InkView[]>(`/stocks/${stock}/profile`, file),
  withoutProfile: (stock: string) => call<InkView[]>('DELETE', `/stocks/${stock}/profile`),
  tones: (stock: string, page: File) => send<InkView[]>(`/stocks/${stock}/tones`, page),
  tonesPrinted: (stock: string, ref: string) => call<InkView[]>('POST', `/stocks/${stock}/tones?print=${ref}`),
  withoutTones: (stock: string) => call<InkView[]>('DELETE', `/stocks/${stock}/tones`),
  machines: () => call<OtherCutter[]>('GET', '/machines'),
  forgetMachine: (name: string) => call<void>('DELETE', `/machines/${encodeURIComponent(name)}`),
  printerReach: () => call<SheetPrinterReach | null>('GET', '/printer/reach'),
  keepPrinterReach: (r: SheetPrinterReach) => call<void>('PUT', '/printer/reach', r),
  namedCutter: () => call<OtherCutter>('GET', '/cutter/named'),
  useCutter: (c: OtherCutter) => call<void>('PUT', '/cutter/named', c),
  scraps: () => call<Scrap[]>('GET', '/scraps'),
  keepScraps: (s: Scrap[]) => call<void>('PUT', '/scraps', s),
  onHand: () => call<OnHand[]>('GET', '/onhand'),
  keepOnHand: (h: OnHand) => call<void>('PUT', `/stocks/${h.stock}/onhand`, h),
  sheets: (id: string, signal?: AbortSignal) => call<LayoutView>('GET', `/cards/${id}/sheets`, undefined, { signal }),
  /** What is printed on the front of a sheet, on white. */
  sheetInkURL: (id: string, n: number, revision: number, laid: number) =>
    `/api/cards/${id}/sheets/${n}/ink.png${asked({ v: `${revision}.${laid}` })}`,
  /** Reads a list of names from a table, its letters in an encoding where they are not Unicode ('' finds it). */
  readNames: (file: File, pasted = false, encoding = '') =>
    send<ListRead>(`/lists${asked({ pasted, encoding })}`, file),
  names: (id: string, signal?: AbortSignal) => call<NamesView>('GET', `/cards/${id}/names`, undefined, { signal }),
  nameFaceURL: (id: string, row: string, face: string, revision: number) =>
    `/api/cards/${id}/names/${row}/${face}.png${asked({ v: revision })}`,
  /** What the cells of a column seem to stand for. */
  meanings: (id: string, what: string, column: string) =>
    call<ByValue[]>('GET', `/cards/${id}/meanings${asked({ what, column })}`),
  namesURL: (id: string) => `/api/cards/${id}/names.csv`,
  layCloser: (id: string) => call<Job>('POST', `/cards/${id}/sheets/closer`),
  /** Prints; without what has no room on any sheet only if that is said. */
  print: (id: string, without = false) => call<Job>('POST', `/cards/${id}/prints${asked({ without })}`),
  run: (id: string, n: number, goOn?: GoOn) =>
    call<Job>('POST', `/cards/${id}/sheets/${n}/runs${asked(goOn ? { goOn: true, ...goOn } : {})}`),
  /** Puts a sheet on the mat, looks for its marks, or cuts a test. */
  atCutter: (id: string, n: number, what: 'loads' | 'finds' | 'tests') =>
    call<Job>('POST', `/cards/${id}/sheets/${n}/${what}`),
  jobs: () => call<Job[]>('GET', '/jobs'),
  hold: (job: string, what: 'pause' | 'resume') => call<void>('POST', `/jobs/${job}/${what}`),
  unload: () => call<void>('DELETE', '/cutter/mat'),
  mishap: (m: Mishap) => call<void>('PUT', '/cutter/mishap', m),
  keepSettings: (stock: string, s: CutSettings) => call<void>('PUT', `/stocks/${stock}/settings`, s),
  stop: (job: string) => call<void>('DELETE', `/jobs/${job}`),
  cutter: () => call<CutterState>('GET', '/cutter'),
  pictures: () => call<Picture[]>('GET', '/pictures'),
  removePicture: (id: string) => call<void>('DELETE', `/pictures/${id}`),
  bringInFont: (file: File) => send<Font[]>('/fonts', file),
  removeFont: (id: string) => call<void>('DELETE', `/fonts/${id}`),
  bringSupplies: (file: File) => send<SuppliesIn>('/supplies', file),
  cardFileURL: (id: string) => `/api/cards/${id}/file`,
  bringCard: (file: File) => send<CardIn>('/cards/files', file),
  check: (id: string, signal?: AbortSignal) => call<CheckView>('GET', `/cards/${id}/check`, undefined, { signal }),
  cut: (id: string, from: Point, to: Point) => call<SceneCut>('POST', `/cards/${id}/cuts`, { from, to }),
  assembly: (id: string, unit: string) => call<AssemblyView>('GET', `/cards/${id}/assembly${asked({ unit })}`),
  tickStep: (id: string, step: string, done: boolean) =>
    call<void>('PUT', `/cards/${id}/assembly/${encodeURIComponent(step)}/done`, { done }),
  stepURL: (id: string, step: string, revision: number, side: number, unit: string) =>
    `/api/cards/${id}/assembly/${encodeURIComponent(step)}.svg${asked({ side, unit, v: revision })}`,
  guideURL: (id: string, unit: string, per: number) => `/api/cards/${id}/assembly.pdf${asked({ unit, per })}`,
  foldingURL: (id: string, side: number) => `/api/cards/${id}/folding.png${asked({ side })}`,
  stillsURL: (id: string, side: number) => `/api/cards/${id}/folding/stills.png${asked({ side })}`,
  posts: () => call<Post[]>('GET', '/posts'),
  setPosts: (all: Post[]) => call<void>('PUT', '/posts', all),
  credits: (id: string) => call<Credits>('GET', `/cards/${id}/credits`),
  supplies: () => call<Supply[]>('GET', '/supplies'),
  note: (s: Supply) => call<void>('PUT', `/supplies/${s.kind}/${encodeURIComponent(s.id)}`, s),
  used: (kind: string, id: string) => call<void>('POST', `/supplies/${kind}/${encodeURIComponent(id)}/uses`),
  makeMotif: (card: string, m: NewMotif) => call<Motif>('POST', `/cards/${card}/motifs`, m),
  removeMotif: (id: string) => call<void>('DELETE', `/motifs/${id}`),
  readPaper: (file: File) => send<IncomingPaper>('/papers/files', file),
  addPaper: (p: NewPaper) => call<Paper>('POST', '/papers', p),
  changePaper: (id: string, p: NewPaper) => call<void>('PUT', `/papers/${id}`, p),
  removePaper: (id: string) => call<void>('DELETE', `/papers/${id}`),
  art: () => call<Art[]>('GET', '/art'),
  keepDrawing: (l: Omit<LayDrawing, 'base'>) => call<Art>('POST', '/art', l),
  layArt: (card: string, base: number, l: Omit<LayArt, 'base'>) =>
    call<View>('POST', `/cards/${card}/art`, { base, ...l }),
  keepArt: (card: string, k: KeptThings) => call<Art>('POST', `/cards/${card}/art/kept`, k),
  removeArt: (id: string) => call<void>('DELETE', `/art/${id}`),
  artURL: (id: string) => `/api/art/${id}/picture.png`,
  sketches: () => call<Sketch[]>('GET', '/sketches'),
  keepSketch: (card: string, n: NewSketch) => call<Sketch>('POST', `/cards/${card}/sketches`, n),
  removeSketch: (id: string) => call<void>('DELETE', `/sketches/${id}`),
  startFromSketch: (id: string, title: string, pictures: string[]) =>
    call<{ id: string }>('POST', `/sketches/${id}/cards`, { title, pictures }),
  sketchURL: (id: string) => `/api/sketches/${id}/front.png`,

  readDrawing: (file: File) => send<Incoming>('/drawings', file),
  layDrawing: (id: string, base: number, l: Omit<LayDrawing, 'base'>) =>
    call<View>('POST', `/cards/${id}/drawings`, { ...l, base }),

  readBase: (id: string, ask: BaseAsk) => call<DrawingFound>('POST', `/drawings/${id}/base`, ask),
  drawingURL: (id: string) => `/api/drawings/${id}/preview.svg`,
  outlinesURL: (id: string, face: string, format: string, items: string[]) =>
    `/api/cards/${id}/faces/${face}/outlines.${format}${items.length ? '?items=' + items.join(',') : ''}`,
  printURL: (v: View, stocks: string, face: string) =>
    `/api/cards/${v.id}/faces/${face}/print.png?v=${v.revision}-${v.inks}-${stocks}`,
  lookURL: (v: View, stocks: string, face: string, piece = '') =>
    `/api/cards/${v.id}/faces/${face}/look.png?v=${v.revision}-${stocks}${piece ? '&piece=' + piece : ''}`,
  directionsURL: (id: string, unit: string, parts: number) =>
    `/api/cards/${id}/directions.pdf${asked({ unit, parts })}`,
  pdfURL: (id: string, lines: boolean, spot: boolean) =>
    `/api/cards/${id}/sheets.pdf${asked({ lines, spot: lines && spot })}`,
  zipURL: (id: string, unit: string) => `/api/cards/${id}/sheets.zip${asked({ unit })}`,
  linesURL: (id: string, n: number, extension: string) => `/api/cards/${id}/sheets/${n}/lines${extension}`,
  pageURL: (id: string, n: number, kind: 'png' | 'jpg', dpi: number) =>
    `/api/cards/${id}/sheets/${n}/page.${kind}${asked({ dpi })}`,
  previewURL: (picture: string, side: 256 | 800 | 1600) => `/api/pictures/${picture}/preview?side=${side}`,
  standingURL: (c: Summary, stocks: string) => `/api/cards/${c.id}/standing.png?v=${c.revision}-${stocks}`,
}

/** Sends a picture; progress runs from 0 to 1 while it is on its way. */
export function bringIn(file: File, progress: (share: number) => void, signal: AbortSignal): Promise<Picture> {
  return new Promise((resolve, reject) => {
    const req = new XMLHttpRequest()
    req.open('POST', '/api/pictures')
    req.upload.onprogress = (e) => e.lengthComputable && progress(e.loaded / e.total)
    req.onerror = () => reject(new Fault(away, 'away'))
    req.onabort = () => reject(new Fault('Stopped.', 'stopped'))
    req.onload = async () => {
      if (req.status === 201) resolve(JSON.parse(req.responseText) as Picture)
      else reject(await fault(new Response(req.responseText, { status: req.status, statusText: req.statusText })))
    }
    signal.addEventListener('abort', () => req.abort())
    const form = new FormData()
    form.append('file', file, file.name)
    req.send(form)
  })
}

export type { Card }
