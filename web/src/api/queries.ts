import { keepPreviousData, QueryClient, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import api, { answer, bare, Problem } from './client'
import type {
  BriefVersion,
  CharterChange,
  CodebaseStatus,
  Finding,
  Home,
  Margin,
  NewFinding,
  Overrule,
  Patch,
  Settings,
} from './types'

export const client = new QueryClient({
  defaultOptions: {
    queries: { staleTime: 30_000, retry: (n, e) => n < 2 && e instanceof Problem && e.status === 0, refetchOnWindowFocus: false },
  },
})

/** Where a view looks: the codebase, the survey (0 for the newest) and the place. */
export interface At {
  id: number
  survey: number
  at: string
}

const params = (a: At) => ({ params: { path: { id: a.id }, query: { at: a.at, survey: a.survey || undefined } } })
const key = (name: string, a: At) => ['codebase', a.id, name, a.survey, a.at]

export const useHome = () => useQuery({ queryKey: ['home'], queryFn: async () => (await answer(api.GET('/api/home'))) as Home })

export const useCodebase = (id: number) =>
  useQuery({
    queryKey: ['codebase', id, 'status'],
    queryFn: async () => (await answer(api.GET('/api/codebases/{id}', { params: { path: { id } } }))) as CodebaseStatus,
  })

export const useSheet = (a: At) =>
  useQuery({ queryKey: key('overview', a), queryFn: () => answer(api.GET('/api/codebases/{id}/overview', params(a))) })

export const useSection = (a: At) =>
  useQuery({ queryKey: key('section', a), queryFn: () => answer(api.GET('/api/codebases/{id}/section', params(a))) })

export const useLedger = (a: At) =>
  useQuery({
    queryKey: key('layout', a),
    queryFn: () => answer(api.GET('/api/codebases/{id}/layout', params(a))),
    placeholderData: keepPreviousData,
  })

export const useMargin = (a: At) =>
  useQuery({
    queryKey: key('margin', a),
    queryFn: async () => (await answer(api.GET('/api/codebases/{id}/margin', params(a)))) as Margin,
    placeholderData: keepPreviousData,
  })

export const useCode = (a: At, enabled: boolean) =>
  useQuery({ queryKey: key('code', a), queryFn: () => answer(api.GET('/api/codebases/{id}/code', params(a))), enabled })

export const useSmells = (a: At, enabled: boolean) =>
  useQuery({ queryKey: key('smells', a), queryFn: () => answer(api.GET('/api/codebases/{id}/smells', params(a))), enabled })

export const useRoutes = (a: At, path: string) =>
  useQuery({
    queryKey: [...key('routes', a), path],
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/routes', {
          params: { path: { id: a.id }, query: { at: a.at, survey: a.survey || undefined, path: path || undefined } },
        }),
      ),
    placeholderData: keepPreviousData,
  })

export const useGrid = (a: At) =>
  useQuery({
    queryKey: key('weave', a),
    queryFn: () => answer(api.GET('/api/codebases/{id}/weave', params(a))),
    placeholderData: keepPreviousData,
  })

/** The drawing of a place; without a list of what is opened, as Jantel opens it. */
/** What all views are narrowed to: a feature, a role or both. */
export interface Narrow {
  feature: string
  role: string
}

export const useNarrowed = (a: At & Narrow, enabled: boolean) =>
  useQuery({
    queryKey: ['codebase', a.id, 'narrowed', a.survey, a.feature, a.role],
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

export const useDependencies = (
  a: At & Narrow,
  open: readonly string[] | null,
  o: { tests: boolean; rim: boolean; focus: string },
) =>
  useQuery({
    queryKey: [...key('dependencies', a), open ? [...open].sort().join('\n') : null, o.tests, o.rim, o.focus, a.feature, a.role],
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/dependencies', {
          params: {
            path: { id: a.id },
            query: {
              at: a.at,
              survey: a.survey || undefined,
              open: open && open.length > 0 ? [...open] : undefined,
              auto: open ? undefined : true,
              tests: o.tests || undefined,
              rim: o.rim || undefined,
              focus: o.focus || undefined,
              feature: a.feature || undefined,
              role: a.role || undefined,
            },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  })

export const useBelongings = (a: At, enabled: boolean) =>
  useQuery({
    queryKey: key('belongings', a),
    queryFn: () => answer(api.GET('/api/codebases/{id}/belongings', params(a))),
    enabled,
  })

export const useArrangement = (id: number, at: string) =>
  useQuery({
    queryKey: ['codebase', id, 'arrangement', at],
    queryFn: () => answer(api.GET('/api/codebases/{id}/arrangement', { params: { path: { id }, query: { at } } })),
  })

/** Puts the boxes of a drawing where a hand wants them; no boxes leaves it to what is reckoned. */
export const useArrange = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { place: string; boxes: string[] }) =>
      answer(api.PUT('/api/codebases/{id}/arrangement', { params: { path: { id } }, body })),
    onSuccess: async (a) => {
      qc.setQueryData(['codebase', id, 'arrangement', a.place], a)
      await qc.invalidateQueries({ queryKey: ['codebase', id, 'dependencies'] })
    },
  })
}

export const useBetween = (a: At, pair: { from: string; to: string; class: string } | null) =>
  useQuery({
    queryKey: [...key('between', a), pair?.from, pair?.to, pair?.class],
    enabled: pair !== null,
    queryFn: () =>
      answer(
        api.GET('/api/codebases/{id}/between', {
          params: {
            path: { id: a.id },
            query: {
              at: a.at,
              survey: a.survey || undefined,
              from: pair?.from ?? '',
              to: pair?.to ?? '',
              class: pair?.class || undefined,
            },
          },
        }),
      ),
  })

export const useCharter = (a: At) =>
  useQuery({
    queryKey: key('charter', { ...a, at: '.' }),
    queryFn: () => answer(api.GET('/api/codebases/{id}/charter', params({ ...a, at: '.' }))),
  })

export const useTryCharter = (a: At) =>
  useMutation({
    mutationFn: (body: { text: string; version: number }) =>
      answer(
        api.POST('/api/codebases/{id}/charter/try', {
          params: { path: { id: a.id }, query: { survey: a.survey || undefined } },
          body,
        }),
      ),
  })

/** Puts one change of the form into a charter's text; nothing is saved by it. */
export const useChangeCharter = (id: number) =>
  useMutation({
    mutationFn: (body: CharterChange) =>
      answer(api.POST('/api/codebases/{id}/charter/change', { params: { path: { id } }, body })),
  })

export const useDeriveCharter = (a: At) =>
  useMutation({
    mutationFn: () =>
      answer(
        api.GET('/api/codebases/{id}/charter/derived', {
          params: { path: { id: a.id }, query: { survey: a.survey || undefined } },
        }),
      ),
  })

export const useSaveCharter = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { text: string; version: number }) =>
      answer(api.PUT('/api/codebases/{id}/charter', { params: { path: { id } }, body })),
    onSuccess: () => qc.invalidateQueries(),
  })
}

export const useOverrules = (id: number) =>
  useQuery({
    queryKey: ['overrules', id],
    queryFn: () => answer(api.GET('/api/codebases/{id}/overrules', { params: { path: { id } } })),
  })

/** Sets something by hand, or takes it back. */
export const useOverrule = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ gone, ...body }: Overrule & { gone?: boolean }) =>
      answer(api.POST('/api/codebases/{id}/overrules', { params: { path: { id }, query: { gone } }, body })),
    onSuccess: () => qc.invalidateQueries(),
  })
}

export const useFlows = (a: At, enabled: boolean) =>
  useQuery({ queryKey: key('flows', a), queryFn: () => answer(api.GET('/api/codebases/{id}/flows', params(a))), enabled })

export const useSiblings = (a: At, enabled: boolean) =>
  useQuery({ queryKey: key('siblings', a), queryFn: () => answer(api.GET('/api/codebases/{id}/siblings', params(a))), enabled })

export const useRules = () => useQuery({ queryKey: ['rules'], queryFn: () => answer(api.GET('/api/rules')), staleTime: Infinity })

/** The JSON Schema of a charter, which says what its keys mean. */
export const useCharterSchema = () =>
  useQuery({
    queryKey: ['charter schema'],
    queryFn: async ({ signal }): Promise<unknown> => (await fetch('/api/charter.schema.json', { signal })).json(),
    staleTime: Infinity,
  })

export const usePlaces = (a: At, q: string) =>
  useQuery({
    queryKey: ['codebase', a.id, 'places', a.survey, q],
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

export const useFindings = (id: number) =>
  useQuery({
    queryKey: ['codebase', id, 'findings'],
    queryFn: () => answer(api.GET('/api/codebases/{id}/findings', { params: { path: { id } } })),
  })

export const useChanges = (id: number, finding: number, version: number) =>
  useQuery({
    queryKey: ['codebase', id, 'changes', finding, version],
    queryFn: () => answer(api.GET('/api/codebases/{id}/findings/{finding}/changes', { params: { path: { id, finding } } })),
  })

export const useBrief = (id: number) =>
  useQuery({
    queryKey: ['codebase', id, 'brief'],
    queryFn: () => answer(api.GET('/api/codebases/{id}/brief', { params: { path: { id } } })),
  })

export const useSettings = () =>
  useQuery({ queryKey: ['settings'], queryFn: () => answer(api.GET('/api/settings')), staleTime: Infinity })

/** Makes everything about a codebase's review and views be asked for again. */
export function refresh(qc: QueryClient, id: number) {
  void qc.invalidateQueries({ queryKey: ['codebase', id] })
}

export function useAddFinding(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: NewFinding) => answer(api.POST('/api/codebases/{id}/findings', { params: { path: { id } }, body })),
    onSuccess: () => refresh(qc, id),
  })
}

export interface FindingChange {
  finding: Pick<Finding, 'id' | 'version'>
  patch: Patch
  by: string
}

export function useChangeFinding(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ finding, patch, by }: FindingChange) =>
      answer(
        api.PATCH('/api/codebases/{id}/findings/{finding}', {
          params: { path: { id, finding: finding.id }, query: { by }, header: { 'If-Match': String(finding.version) } },
          body: patch,
        }),
      ),
    onSettled: () => refresh(qc, id),
  })
}

export function useMarkRead(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { path: string; read: boolean; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/read', { params: { path: { id } }, body })),
    onSuccess: () => refresh(qc, id),
  })
}

export function useUndoMarks(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (step: number) =>
      answer(api.DELETE('/api/codebases/{id}/read/{step}', { params: { path: { id, step } }, ...bare })),
    onSuccess: () => refresh(qc, id),
  })
}

export function useSilence(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { smell: string; reason: string; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/silence', { params: { path: { id } }, body })),
    onSuccess: () => refresh(qc, id),
  })
}

export function useSetBrief(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: BriefVersion) => answer(api.PUT('/api/codebases/{id}/brief', { params: { path: { id } }, body })),
    onSuccess: () => refresh(qc, id),
  })
}

export function useSetSettings() {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: Settings) => answer(api.PUT('/api/settings', { body })),
    onMutate: (body) => qc.setQueryData(['settings'], body),
    onSuccess: (v) => qc.setQueryData(['settings'], v),
  })
}

export function useTakeIn() {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: async (body: { path: string; revision?: string; name?: string }) =>
      (await answer(api.POST('/api/codebases', { body }))) as CodebaseStatus,
    onSuccess: () => void qc.invalidateQueries({ queryKey: ['home'] }),
  })
}

export function useSurveyActions(id: number) {
  const qc = useQueryClient()
  const again = () => {
    void qc.invalidateQueries({ queryKey: ['home'] })
    refresh(qc, id)
  }
  const path = { params: { path: { id } } }
  return {
    start: useMutation({
      mutationFn: () => answer(api.POST('/api/codebases/{id}/surveys', { ...path, ...bare })),
      onSuccess: again,
    }),
    cancel: useMutation({
      mutationFn: () => answer(api.POST('/api/codebases/{id}/cancel', { ...path, ...bare })),
      onSuccess: again,
    }),
    remove: useMutation({ mutationFn: () => answer(api.DELETE('/api/codebases/{id}', { ...path, ...bare })), onSuccess: again }),
  }
}

export const render = (text: string) => answer(api.POST('/api/render', { body: { text } }))
