import {
  keepPreviousData,
  QueryClient,
  queryOptions,
  useMutation,
  useQuery,
  useQueryClient,
  type QueryFunctionContext,
} from '@tanstack/react-query'
import api, { answer, bare, Problem } from './client'
import { keys, type At, type Name, type Narrow } from './keys'
import type { Page, PageShown, PartOnly, PartSort, TextRow, Tried } from './types'
import type { CodebaseStatus, Home, Margin, Route } from './types'

export type { At, Narrow }

/**
 * What was read stays true until an event says that it may have changed: no
 * view asks again because time went by.
 */
export const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: Infinity,
      retry: (n, e) => n < 2 && e instanceof Problem && e.status === 0,
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
    },
  },
})

const params = (a: At) => paramsWith(a, {})
/** Where a view looks, and what else is asked for. */
const paramsWith = <M extends object>(a: At, more: M) => ({
  params: { path: { id: a.id }, query: { at: a.at, survey: a.survey || undefined, ...more } },
})
const path = (id: number) => ({ params: { path: { id } } })

export const useHome = (enabled = true) =>
  useQuery({ queryKey: keys.home, queryFn: async () => (await answer(api.GET('/api/home'))) as Home, staleTime: 5_000, enabled })

/** The folders in a folder that may be surveyed; those allowed themselves without one. */
export const useFolders = (at: string, enabled: boolean) =>
  useQuery({
    queryKey: keys.folders(at),
    enabled,
    staleTime: 0,
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET('/api/folders', { params: { query: { at: at || undefined } } })),
  })

export const useCodebase = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'status'),
    enabled: id > 0,
    queryFn: async () => (await answer(api.GET('/api/codebases/{id}', path(id)))) as CodebaseStatus,
  })

/** A view that is determined by its place alone. While another place is asked for the one before is shown. */
function useView<T>(name: Name, a: At, ask: () => Promise<T>, o: { enabled?: boolean; keep?: boolean } = {}) {
  return useQuery({
    queryKey: keys.view(name, a),
    queryFn: ask,
    enabled: o.enabled ?? true,
    placeholderData: o.keep ? keepPreviousData : undefined,
  })
}

export const useSheet = (a: At) => useView('overview', a, () => answer(api.GET('/api/codebases/{id}/overview', params(a))))

export const useSection = (a: At) => useView('section', a, () => answer(api.GET('/api/codebases/{id}/section', params(a))))

export const useLedger = (a: At) =>
  useView('layout', a, () => answer(api.GET('/api/codebases/{id}/layout', params(a))), { keep: true })

export const useMargin = (a: At) =>
  useView('margin', a, async () => (await answer(api.GET('/api/codebases/{id}/margin', params(a)))) as Margin, { keep: true })

export const useCode = (a: At, enabled: boolean) =>
  useView('code', a, () => answer(api.GET('/api/codebases/{id}/code', params(a))), { enabled })

/** The strongest smells of a place, of a feature or a role where the views are narrowed to one. */
export const useSmells = (a: At, n: Narrow, count: number, enabled: boolean) =>
  useQuery({
    queryKey: keys.view('smells', a, n.feature, n.role, count),
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/smells',
          paramsWith(a, { feature: n.feature || undefined, role: n.role || undefined, count }),
        ),
      ),
    enabled,
    placeholderData: keepPreviousData,
  })

/** The smells of a place in groups, and those that are asked for. */
export const useDesk = (
  a: At,
  n: Narrow,
  by: { group: 'rule' | 'facet' | 'folder' | 'feature' | 'telling'; key: string; words: string; quiet: boolean; each: boolean },
  count: number,
) =>
  useQuery({
    queryKey: keys.view('desk', a, n.feature, n.role, by.group, by.key, by.words, by.quiet, by.each, count),
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/desk',
          paramsWith(a, {
            feature: n.feature || undefined,
            role: n.role || undefined,
            group: by.group,
            key: by.key || undefined,
            words: by.words || undefined,
            quiet: by.quiet || undefined,
            each: by.each || undefined,
            count,
          }),
        ),
      ),
    placeholderData: keepPreviousData,
  })

/** The parts of a place that are asked for, in the order asked for. */
export const useParts = (
  a: At,
  n: Narrow,
  by: { words: string; kind: string; only: PartOnly | ''; sort: PartSort; up: boolean },
  count: number,
) =>
  useQuery({
    queryKey: keys.view('parts', a, n.feature, n.role, by.words, by.kind, by.only, by.sort, by.up, count),
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/parts',
          paramsWith(a, {
            feature: n.feature || undefined,
            role: n.role || undefined,
            words: by.words || undefined,
            kind: by.kind || undefined,
            only: by.only || undefined,
            sort: by.sort,
            up: by.up || undefined,
            count,
          }),
        ),
      ),
    placeholderData: keepPreviousData,
  })

/** One part with what it is made of, who uses it, and what it uses. */
export const usePart = (a: At, name: string) =>
  useQuery({
    queryKey: keys.view('part', a, name),
    queryFn: () => answer(api.GET('/api/codebases/{id}/part', paramsWith(a, { name }))),
  })

/** What a change at a place may touch: of the definition that holds a line, else of all of it. */
export const useReach = (a: At, line: number, enabled: boolean) =>
  useQuery({
    queryKey: keys.view('reach', a, line),
    enabled,
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET('/api/codebases/{id}/reach', paramsWith(a, { line: line || undefined }))),
  })

/** How the score of a codebase came about, as far as it is told; asked again while it is looked at. */
export const usePastScores = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'past'),
    queryFn: () => answer(api.GET('/api/codebases/{id}/past', { params: { path: { id } } })),
    refetchInterval: (q) => (q.state.data?.state === 'running' ? 700 : false),
  })

export const useLookBack = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: () => answer(api.POST('/api/codebases/{id}/past', { params: { path: { id } }, ...bare })),
    onSuccess: (told) => qc.setQueryData(keys.of(id, 'past'), told),
  })
}

/** The same as a picture, one way or the other. */
export const useReachPicture = (a: At, line: number, way: 'touched' | 'along') =>
  useQuery({
    queryKey: keys.view('reach', a, line, way),
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET('/api/codebases/{id}/reach/picture', paramsWith(a, { line: line || undefined, way }))),
  })

/** The pages of a codebase, without their texts. */
export const usePages = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'pages'),
    queryFn: async () => (await answer(api.GET('/api/codebases/{id}/pages', path(id)))).pages,
  })

/** A page with the lines of its places, and what becomes of its moves. */
export const usePage = (id: number, page: number) =>
  useQuery({
    queryKey: keys.of(id, 'page', page),
    placeholderData: keepPreviousData,
    queryFn: async () =>
      (await answer(api.GET('/api/codebases/{id}/pages/{page}', { params: { path: { id, page } } }))) as PageShown,
  })

/** What a page of a kind begins with. */
export const beginPage = (id: number, kind: Page['kind']) =>
  answer(api.GET('/api/codebases/{id}/pages/begin', { params: { path: { id }, query: { kind } } }))

/** The pictures of a part or a route. */
export const usePictures = (id: number, at: string, name: string) =>
  useQuery({
    queryKey: keys.of(id, 'pictures', at, name),
    queryFn: async () =>
      (await answer(api.GET('/api/codebases/{id}/pictures', { params: { path: { id }, query: { at, name } } }))).pictures,
  })

/** Which addresses would be answered otherwise if a route had another pattern. */
export const useTriedRoute = (a: At, r: Pick<Route, 'path' | 'line' | 'method' | 'pattern'>, to: string) =>
  useQuery({
    queryKey: keys.view('tried', { ...a, at: r.path }, r.line, r.method, r.pattern, to),
    enabled: to.includes('/'),
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/routes/otherwise',
          paramsWith({ ...a, at: r.path }, { line: r.line, method: r.method, pattern: r.pattern, to }),
        ),
      ) as Promise<Tried>,
  })

/** How the code of a place speaks, with the words that are asked for. */
export const useNames = (a: At, words: string, short: boolean) =>
  useQuery({
    queryKey: keys.view('names', a, words, short),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(api.GET('/api/codebases/{id}/names', paramsWith(a, { words: words || undefined, short: short || undefined }))),
  })

/** What is asked for by name at a place, and what holds it. */
export const useTexts = (a: At, ask: { kind: TextRow['kind']; words: string; wrong: string; set: string; open: string }) =>
  useQuery({
    queryKey: keys.view('texts', a, ask),
    placeholderData: keepPreviousData,
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/texts',
          paramsWith(a, {
            kind: ask.kind,
            words: ask.words || undefined,
            wrong: ask.wrong || undefined,
            set: ask.set || undefined,
            open: ask.open || undefined,
          }),
        ),
      ),
  })

export const useGrid = (a: At) =>
  useView('weave', a, () => answer(api.GET('/api/codebases/{id}/weave', params(a))), { keep: true })

export const useBuilt = (a: At, enabled: boolean) =>
  useView('built', a, () => answer(api.GET('/api/codebases/{id}/built', params(a))), { keep: true, enabled })

export const useBelongings = (a: At, enabled: boolean) =>
  useView('belongings', a, () => answer(api.GET('/api/codebases/{id}/belongings', params(a))), { enabled })

export const useFlows = (a: At, enabled: boolean) =>
  useView('flows', a, () => answer(api.GET('/api/codebases/{id}/flows', params(a))), { enabled })

/** What is handed out where something is asked for. */
export const useWiring = (a: At) =>
  useView('wiring', a, () => answer(api.GET('/api/codebases/{id}/wiring', params(a))), { keep: true })

export const useStates = (a: At) =>
  useView('states', a, () => answer(api.GET('/api/codebases/{id}/states', params(a))), { keep: true })

/** How the states at a line lead to each other. */
export const useStateHolder = (a: At, line: number) =>
  useQuery({
    queryKey: keys.view('state', a, line),
    queryFn: () => answer(api.GET('/api/codebases/{id}/state', paramsWith(a, { line }))),
  })

/** What several types of a place are about. */
export const useShapes = (a: At, words: string) =>
  useQuery({
    queryKey: keys.view('shapes', a, words),
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET('/api/codebases/{id}/shapes', paramsWith(a, { words: words || undefined }))),
  })

/** The type at a line beside others that are about the same, field by field. */
export const useShape = (a: At, line: number) =>
  useQuery({
    queryKey: keys.view('shape', a, line),
    enabled: line > 0,
    queryFn: () => answer(api.GET('/api/codebases/{id}/shape', paramsWith(a, { line }))),
  })

export const useRights = (a: At) =>
  useView('rights', a, () => answer(api.GET('/api/codebases/{id}/rights', params(a))), { keep: true })

export const useSiblings = (a: At, enabled: boolean) =>
  useView('siblings', a, () => answer(api.GET('/api/codebases/{id}/siblings', params(a))), { enabled })

export const useCharter = (a: At) => {
  const top = { ...a, at: '.' }
  return useView('charter', top, () => answer(api.GET('/api/codebases/{id}/charter', params(top))))
}

export const useRoutes = (a: At, typed: string, full = false) =>
  useQuery({
    queryKey: keys.view('routes', a, typed, full),
    queryFn: () =>
      answer(api.GET('/api/codebases/{id}/routes', paramsWith(a, { path: typed || undefined, full: full || undefined }))),
    placeholderData: keepPreviousData,
  })

/** What a definition calls, who calls it, and which tests reach it: the one that holds a line. */
export const useDefinition = (a: At, line: number) =>
  useQuery({
    queryKey: keys.view('definition', a, line),
    enabled: line > 0,
    placeholderData: keepPreviousData,
    queryFn: () => answer(api.GET('/api/codebases/{id}/definition', paramsWith(a, { line }))),
  })

/** What the renaming of the definition at a line would touch; asked for with a line alone. */
export const useRename = (a: At, line: number) =>
  useQuery({
    queryKey: keys.view('rename', a, line),
    enabled: line > 0,
    queryFn: () => answer(api.GET('/api/codebases/{id}/rename', paramsWith(a, { line }))),
  })

/** The way of one route, from what answers it to what is kept. */
export const useJourney = (a: At, r: Pick<Route, 'path' | 'line' | 'method' | 'pattern'>) =>
  useQuery({
    queryKey: keys.view('journey', { ...a, at: r.path }, r.line, r.method, r.pattern),
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/journey', {
          params: {
            path: { id: a.id },
            query: { at: r.path, survey: a.survey || undefined, line: r.line, method: r.method, pattern: r.pattern },
          },
        }),
      ),
  })

export const useNarrowed = (a: At & Narrow, enabled: boolean) =>
  useQuery({
    queryKey: keys.of(a.id, 'narrowed', a.survey, a.feature, a.role),
    enabled,
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/narrowed', {
          params: {
            path: { id: a.id },
            query: { survey: a.survey || undefined, feature: a.feature || undefined, role: a.role || undefined },
          },
        }),
      ),
  })

/** The drawing of a place; without a list of what is opened, as Jantel opens it. */
export const useDependencies = (
  a: At & Narrow,
  open: readonly string[] | null,
  o: { tests: boolean; rim: boolean; focus: string },
) =>
  useQuery({
    queryKey: keys.view('dependencies', a, open ? [...open].sort().join('\n') : null, o.tests, o.rim, o.focus, a.feature, a.role),
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/dependencies',
          paramsWith(a, {
            open: open && open.length > 0 ? [...open] : undefined,
            auto: open ? undefined : true,
            tests: o.tests || undefined,
            rim: o.rim || undefined,
            focus: o.focus || undefined,
            feature: a.feature || undefined,
            role: a.role || undefined,
          }),
        ),
      ),
    placeholderData: keepPreviousData,
  })

export const useArrangement = (id: number, at: string) =>
  useQuery({
    queryKey: keys.of(id, 'arrangement', at),
    queryFn: () => answer(api.GET('/api/codebases/{id}/arrangement', { params: { path: { id }, query: { at } } })),
  })

export const useBetween = (a: At, pair: { from: string; to: string; class: string } | null) =>
  useQuery({
    queryKey: keys.view('between', a, pair?.from, pair?.to, pair?.class),
    enabled: pair !== null,
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/between',
          paramsWith(a, { from: pair?.from ?? '', to: pair?.to ?? '', class: pair?.class || undefined }),
        ),
      ),
  })

/** What a dependency would do before it exists. */
export const useTried = (a: At, pair: { from: string; to: string } | null) =>
  useQuery({
    queryKey: keys.view('tried', a, pair?.from, pair?.to),
    enabled: pair !== null,
    retry: false,
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/tried', {
          params: { path: { id: a.id }, query: { survey: a.survey || undefined, from: pair?.from ?? '', to: pair?.to ?? '' } },
        }),
      ),
  })

/** What differs between a place and one beside it. */
export const useBeside = (a: At, b: At) =>
  useQuery({
    queryKey: keys.view('beside', a, b.id, b.survey, b.at),
    queryFn: () =>
      answer(
        api.GET(
          '/api/codebases/{id}/beside',
          paramsWith(a, { with: b.at, 'with-codebase': b.id === a.id ? undefined : b.id, 'with-survey': b.survey || undefined }),
        ),
      ),
  })

export const useSurveys = (id: number, enabled: boolean) =>
  useQuery({
    queryKey: keys.of(id, 'surveys'),
    enabled,
    queryFn: () => answer(api.GET('/api/codebases/{id}/surveys', path(id))),
  })

export const useOverrules = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'overrules'),
    queryFn: () => answer(api.GET('/api/codebases/{id}/overrules', path(id))),
  })

export const useRules = () => useQuery({ queryKey: keys.rules, queryFn: () => answer(api.GET('/api/rules')) })

/** The JSON Schema of a charter, which says what its keys mean. */
export const charterSchema = queryOptions({
  queryKey: keys.charterSchema,
  queryFn: async ({ signal }: QueryFunctionContext): Promise<unknown> =>
    (await fetch('/api/charter.schema.json', { signal })).json(),
})

export const usePlaces = (a: At, q: string) =>
  useQuery({
    queryKey: keys.of(a.id, 'places', a.survey, q),
    queryFn: ({ signal }) =>
      answer(
        api.GET('/api/codebases/{id}/places', {
          params: { path: { id: a.id }, query: { q, survey: a.survey || undefined } },
          signal,
        }),
      ),
    enabled: q.trim() !== '',
    placeholderData: keepPreviousData,
  })

/** Which findings a list shows, in which groups; what is empty lets everything pass. */
export interface Listing {
  at: string
  words: string
  kind: string
  state: string
  person: string
  label: string
  group: string
  feature: string
  role: string
}

type Group = 'place' | 'kind' | 'state' | 'person' | 'label'
type ListState = 'noted'

/** How many rows of a list come at once. */
export const stretch = 100

/** The rows of a list of findings from a number on. */
export const findingsQuery = (id: number, l: Partial<Listing>, from = 0, count = stretch) =>
  queryOptions({
    queryKey: keys.of(id, 'findings', l, from, count),
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/findings', {
          params: {
            path: { id },
            query: {
              at: l.at || undefined,
              words: l.words || undefined,
              kind: (l.kind || undefined) as 'fix' | undefined,
              state: (l.state || undefined) as ListState | undefined,
              person: l.person || undefined,
              label: l.label || undefined,
              group: (l.group || undefined) as Group | undefined,
              feature: l.feature || undefined,
              role: l.role || undefined,
              from: from || undefined,
              count,
            },
          },
        }),
      ),
  })

export const useFindings = (id: number, l: Partial<Listing>, count = stretch, enabled = true) =>
  useQuery({ ...findingsQuery(id, l, 0, count), placeholderData: keepPreviousData, enabled })

export const useFinding = (id: number, finding: number) =>
  useQuery({
    queryKey: keys.of(id, 'finding', finding),
    enabled: finding > 0,
    queryFn: () => answer(api.GET('/api/codebases/{id}/findings/{finding}', { params: { path: { id, finding } } })),
  })

/** Who findings are for, and their labels. */
export const usePeople = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'people'),
    queryFn: async () => {
      const l = await answer(api.GET('/api/codebases/{id}/findings', { params: { path: { id }, query: { count: 0 } } }))
      return { people: l.people, labels: l.labels }
    },
  })

/** The smells that findings were made of. */
export const useRecorded = (id: number) =>
  useQuery({
    queryKey: keys.of(id, 'recorded'),
    queryFn: () => answer(api.GET('/api/codebases/{id}/recorded', path(id))),
  })

export const useChanges = (id: number, finding: number, version: number) =>
  useQuery({
    queryKey: keys.of(id, 'changes', finding, version),
    queryFn: () => answer(api.GET('/api/codebases/{id}/findings/{finding}/changes', { params: { path: { id, finding } } })),
  })

export const useBrief = (id: number) =>
  useQuery({ queryKey: keys.of(id, 'brief'), queryFn: () => answer(api.GET('/api/codebases/{id}/brief', path(id))) })

export const useSettings = () => useQuery({ queryKey: keys.settings, queryFn: () => answer(api.GET('/api/settings')) })

export const render = (text: string) => answer(api.POST('/api/render', { body: { text } }))
