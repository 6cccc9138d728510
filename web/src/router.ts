import { createRouter, createWebHistory } from 'vue-router'
import BenchPlace from './places/bench/BenchPlace.vue'
import { watchGoing } from './shell/going'

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/bench' },
    { path: '/bench/:id(\\d+)?', name: 'bench', component: BenchPlace, meta: { place: 'Bench' } },
    {
      path: '/stand/:id(\\d+)',
      name: 'stand',
      component: () => import('./places/bench/StandPlace.vue'),
      meta: { place: 'Bench', alone: true },
    },
    {
      path: '/atlas/:id(\\d+)',
      name: 'atlas',
      component: () => import('./places/atlas/AtlasPlace.vue'),
      meta: { place: 'Bench' },
    },
    {
      path: '/paper/:id(\\d+)',
      name: 'paper',
      component: () => import('./places/paper/PaperPlace.vue'),
      meta: { place: 'Bench' },
    },
    {
      path: '/charts',
      name: 'charts',
      component: () => import('./places/charts/ChartsPlace.vue'),
      meta: { place: 'Charts' },
    },
    {
      path: '/charts/new',
      name: 'new',
      component: () => import('./places/charts/ChartEditor.vue'),
      meta: { place: 'Charts', each: true },
    },
    {
      path: '/charts/:id(\\d+)',
      name: 'edit',
      component: () => import('./places/charts/ChartEditor.vue'),
      meta: { place: 'Charts', each: true },
    },
    {
      path: '/sets',
      name: 'sets',
      component: () => import('./places/sets/SetsPlace.vue'),
      meta: { place: 'Charts' },
    },
    {
      path: '/sets/:id(\\d+)',
      name: 'set',
      component: () => import('./places/sets/SetPlace.vue'),
      meta: { place: 'Charts' },
    },
    {
      path: '/licks',
      name: 'licks',
      component: () => import('./places/licks/LicksPlace.vue'),
      meta: { place: 'Licks' },
    },
    {
      path: '/licks/:id(\\d+)',
      name: 'lick',
      component: () => import('./places/licks/LickPlace.vue'),
      meta: { place: 'Licks' },
    },
    {
      path: '/lines',
      name: 'lines',
      component: () => import('./places/lines/LinesPlace.vue'),
      meta: { place: 'Lines' },
    },
    {
      path: '/lines/:id(\\d+)',
      name: 'line',
      component: () => import('./places/lines/LinePlace.vue'),
      meta: { place: 'Lines' },
    },
    {
      path: '/lines/:id(\\d+)/paper',
      name: 'line-paper',
      component: () => import('./places/lines/LinePaper.vue'),
      meta: { place: 'Lines' },
    },
    {
      path: '/by-ear',
      name: 'recordings',
      component: () => import('./places/ear/RecordingsPlace.vue'),
      meta: { place: 'By ear' },
    },
    {
      path: '/by-ear/:id(\\d+)',
      name: 'recording',
      component: () => import('./places/ear/RecordingPlace.vue'),
      meta: { place: 'By ear', own: true, each: true },
    },
    {
      path: '/practice/:id(\\d+)?',
      name: 'practice',
      component: () => import('./places/practice/PracticePlace.vue'),
      meta: { place: 'Practice' },
    },
    {
      path: '/call',
      component: () => import('./together/CallPlace.vue'),
      meta: { place: 'Practice', alone: true },
    },
    { path: '/:rest(.*)', component: () => import('./shell/NoPlace.vue') },
  ],
})
watchGoing(router)
