/* Assignments between teacher and pupil: made here, or opened from a file; results come back as a file, too. */
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, type Ref } from 'vue'
import { useUndo } from '../shell/useUndo'
import { answer, api, fetchOf, type Lesson, type LessonBody } from './client'

export const useLessons = () => useQuery({ queryKey: ['lessons'], queryFn: () => answer(api.GET('/api/assignments')) })

export const useLesson = (id: Ref<number>) =>
  useQuery({
    queryKey: ['lessons', id],
    queryFn: () => answer(api.GET('/api/assignments/{id}', { params: { path: { id: id.value } } })),
    enabled: computed(() => id.value > 0),
  })

/** A file is what it says it is: results, or else an assignment. */
async function bring(file: File) {
  const text = await file.text()
  const what = /"kind"\s*:\s*"undaris results"/.test(text.slice(0, 2000)) ? 'results' : 'open'
  return answer<Lesson>(
    fetchOf(`/api/assignments/${what}`, {
      method: 'POST',
      headers: { 'content-type': 'application/octet-stream' },
      body: text,
    }).then(async (response) => {
      const body = (await response.json()) as unknown
      return response.ok ? { data: body as Lesson, response } : { error: body, response }
    }),
  )
}

export function useLessonChanges() {
  const queries = useQueryClient()
  const undo = useUndo()
  const fresh = () => queries.invalidateQueries() // charts, licks and lines may have come with it
  return {
    make: useMutation({
      mutationFn: (body: LessonBody) => answer(api.POST('/api/assignments', { body })),
      onSuccess: fresh,
    }),
    bring: useMutation({ mutationFn: bring, onSuccess: fresh }),
    async remove(lesson: { id: number; title: string }) {
      const params = { path: { id: lesson.id } }
      await answer(api.DELETE('/api/assignments/{id}', { params }))
      await fresh()
      undo(lesson.title, () => answer(api.POST('/api/assignments/{id}/restore', { params })).then(fresh))
    },
  }
}
