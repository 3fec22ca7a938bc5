import { useMutation, useQueryClient, type QueryClient } from '@tanstack/react-query'
import api, { answer, bare, sendFile } from './client'
import { isLive } from './events'
import { keys, type At } from './keys'
import { take, takeCharter, takeFinding } from './live'
import type {
  BriefVersion,
  CharterChange,
  CodebaseStatus,
  Finding,
  Happened,
  NewFinding,
  Overrule,
  Page,
  Patch,
  PictureBox,
  ScreenPicture,
  Settings,
} from './types'

/**
 * What a page changes comes back to it as an event, like what others change.
 * Only while no events come does it bring itself up to date.
 */
function told(qc: QueryClient, codebase: number, part: Happened['part']) {
  if (!isLive()) take(qc, { codebase, part, what: part, by: '', more: 0 })
}

export function useAddFinding(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: NewFinding) => answer(api.POST('/api/codebases/{id}/findings', { params: { path: { id } }, body })),
    onSuccess: (f) => takeFinding(qc, id, f, 1),
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
    onSuccess: (f, { patch }) =>
      f.counter > 0 && takeFinding(qc, id, f, patch.deleted === undefined ? 0 : patch.deleted ? -1 : 1),
  })
}

export function useMarkRead(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { path: string; read: boolean; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/read', { params: { path: { id } }, body })),
    onSuccess: () => told(qc, id, 'marks'),
  })
}

export function useUndoMarks(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ step, by }: { step: number; by: string }) =>
      answer(api.DELETE('/api/codebases/{id}/read/{step}', { params: { path: { id, step }, query: { by } }, ...bare })),
    onSuccess: () => told(qc, id, 'marks'),
  })
}

export function useSilence(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { all: { smell: string; reason: string }[]; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/silences', { params: { path: { id } }, body })),
    onSuccess: () => told(qc, id, 'judged'),
  })
}

export function useSetBrief(id: number) {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ by, ...body }: BriefVersion & { by: string }) =>
      answer(api.PUT('/api/codebases/{id}/brief', { params: { path: { id }, query: { by } }, body })),
    onSuccess: () => told(qc, id, 'judged'),
  })
}

/** Sets something by hand, or takes it back. */
export const useOverrule = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ gone, ...body }: Overrule & { gone?: boolean }) =>
      answer(api.POST('/api/codebases/{id}/overrules', { params: { path: { id }, query: { gone } }, body })),
    onSuccess: (all) => {
      qc.setQueryData(keys.of(id, 'overrules'), all)
      told(qc, id, 'judged')
    },
  })
}

/** Puts a picture to a part or a route: sent as it is, it is drawn anew by the server. */
export const useAddPicture = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ at, name, by, file }: { at: string; name: string; by: string; file: Blob }) =>
      sendFile<ScreenPicture>(`/api/codebases/${id}/pictures?${new URLSearchParams({ at, name, by }).toString()}`, file),
    onSuccess: () => told(qc, id, 'pictures'),
  })
}

/** Sets the boxes of a picture, takes it away or brings it back. */
export const useChangePicture = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ picture, ...body }: { picture: number; boxes: PictureBox[]; version: number; gone?: boolean; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/pictures/{picture}', { params: { path: { id, picture } }, body })),
    onSuccess: () => told(qc, id, 'pictures'),
  })
}

/** Writes a page. */
export const useAddPage = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: { kind: Page['kind']; title: string; text: string; by: string }) =>
      answer(api.POST('/api/codebases/{id}/pages', { params: { path: { id } }, body })),
    onSuccess: () => told(qc, id, 'pages'),
  })
}

/** Changes a page, takes it away or brings it back. */
export const useChangePage = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ page, ...body }: { page: number; title: string; text: string; version: number; gone?: boolean; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/pages/{page}', { params: { path: { id, page } }, body })),
    onSuccess: () => told(qc, id, 'pages'),
  })
}

/** Puts the boxes of a drawing where a hand wants them; no boxes leaves it to what is reckoned. */
export const useArrange = (id: number) => {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: ({ by, ...body }: { place: string; boxes: string[]; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/arrangement', { params: { path: { id }, query: { by } }, body })),
    onSuccess: () => told(qc, id, 'arrangement'),
  })
}

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
    mutationFn: ({ by, ...body }: { text: string; version: number; by: string }) =>
      answer(api.PUT('/api/codebases/{id}/charter', { params: { path: { id }, query: { by } }, body })),
    onSuccess: (saved) => {
      takeCharter(qc, id, saved)
      told(qc, id, 'judged')
    },
  })
}

export function useSetSettings() {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: (body: Settings) => answer(api.PUT('/api/settings', { body })),
    onMutate: (body) => qc.setQueryData(keys.settings, body),
    onSuccess: (v) => qc.setQueryData(keys.settings, v),
  })
}

export function useTakeIn() {
  const qc = useQueryClient()
  return useMutation({
    mutationFn: async (body: { path: string; revision?: string; name?: string }) =>
      (await answer(api.POST('/api/codebases', { body }))) as CodebaseStatus,
    onSuccess: () => void qc.invalidateQueries({ queryKey: keys.home }),
  })
}

export function useSurveyActions(id: number) {
  const qc = useQueryClient()
  const again = () => {
    void qc.invalidateQueries({ queryKey: keys.home })
    void qc.invalidateQueries({ queryKey: keys.of(id, 'status') })
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
