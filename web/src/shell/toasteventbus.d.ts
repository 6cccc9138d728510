/** The library has no types for this part. */
declare module 'primevue/toasteventbus' {
  const bus: {
    on(event: 'add', tell: (message: unknown) => void): void
    off(event: 'add', tell: (message: unknown) => void): void
    emit(event: 'add', message: unknown): void
  }
  export default bus
}
