import { createRouter, createWebHistory } from 'vue-router'

import NoSuchPlace from './shell/NoSuchPlace.vue'
import { PLACES, SHEETS } from './stage/stages'

/** Addresses: a job, its stage or sheet, and in the query what is looked at. */
export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', component: { render: () => null } },
    ...PLACES.map((stage) => ({ path: `/jobs/:job/:stage(${stage.key})`, component: stage.load })),
    ...SHEETS.map((sheet) => ({
      path: `/jobs/:job/sheets/${sheet.key}`,
      component: sheet.load,
      meta: { sheet: sheet.key },
    })),
    { path: '/jobs/:job/:rest(.*)*', component: NoSuchPlace, meta: { lost: true } },
    { path: '/:rest(.*)*', component: NoSuchPlace, meta: { lost: true } },
  ],
})
