import { useToast } from 'primevue/usetoast'

/** Tells of a deletion with a toast that can take it back. */
export function useUndo() {
  const toast = useToast()
  return (title: string, undo: () => unknown) => {
    const message = { group: 'undo', severity: 'secondary' as const, summary: `“${title}” is deleted.`, life: 12000 }
    toast.add({ ...message, undo } as typeof message)
  }
}
