import { createRouter, createWebHistory } from 'vue-router'

import DirectorySheet from './sheets/DirectorySheet.vue'
import BoxSheet from './sheets/BoxSheet.vue'
import BoxesStage from './stages/boxes/BoxesStage.vue'
import { KEYS as BOX_KEYS } from './stages/boxes/boxKeys'
import CircuitsStage from './stages/circuits/CircuitsStage.vue'
import { KEYS as CIRCUIT_KEYS } from './stages/circuits/circuitKeys'
import RunsStage from './stages/runs/RunsStage.vue'
import { KEYS as RUN_KEYS } from './stages/runs/runKeys'
import WallsStage from './stages/walls/WallsStage.vue'
import { KEYS as WALL_KEYS } from './stages/walls/wallKeys'

/** Finished stages, in the order of the work. The header shows these and no others. */
export const STAGES = [
  { path: '/walls', name: 'Walls', component: WallsStage, keys: WALL_KEYS },
  { path: '/boxes', name: 'Boxes', component: BoxesStage, keys: BOX_KEYS },
  { path: '/circuits', name: 'Circuits', component: CircuitsStage, keys: CIRCUIT_KEYS },
  { path: '/runs', name: 'Runs', component: RunsStage, keys: RUN_KEYS },
]

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    ...STAGES.map(({ path, component }) => ({ path, component })),
    { path: '/sheets/boxes', component: BoxSheet },
    { path: '/sheets/directory', component: DirectorySheet },
    { path: '/:rest(.*)*', redirect: '/runs' },
  ],
})
