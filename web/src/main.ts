import { QueryClient, VueQueryPlugin } from '@tanstack/vue-query'
import PrimeVue from 'primevue/config'
import ToastService from 'primevue/toastservice'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import { readHere, watchHere } from './api/here'
import { sendEntry } from './api/log'
import App from './App.vue'
import { openMemory } from './memory/browser'
import { openEntries } from './memory/entries'
import { recall } from './memory/here'
import { moveOld } from './memory/old'
import { readSettings } from './memory/settings'
import { live } from './memory/tabs'
import { router } from './router'
import { loadTheRest, onceDrawn } from './shell/later'
import './theme/fonts.css'
import './theme/tokens.css'
import './theme/base.css'
import { preset } from './theme/preset'

/* What this browser remembers, and of whom, is known before anything is drawn. */
await Promise.all([openMemory(), live(), readHere()])
await recall()
await moveOld()
await readSettings()

const queryClient = new QueryClient({ defaultOptions: { queries: { retry: false, refetchOnWindowFocus: false } } })

createApp(App)
  .use(createPinia())
  .use(router)
  .use(VueQueryPlugin, { queryClient })
  .use(PrimeVue, { theme: { preset, options: { darkModeSelector: '[data-theme="stage"]' } } })
  .use(ToastService)
  .mount('#app')

onceDrawn('main > *', loadTheRest)
watchHere(queryClient)
void openEntries(sendEntry)
