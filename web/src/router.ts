import { createRouter, createWebHistory } from 'vue-router'

import RunsStage from './stages/runs/RunsStage.vue'

/** Finished stages, in the order of the work. The header shows these and no others. */
export const STAGES = [{ path: '/runs', name: 'Runs', component: RunsStage }]

export const router = createRouter({
  history: createWebHistory(),
  routes: [...STAGES, { path: '/:rest(.*)*', redirect: '/runs' }],
})
