<script setup lang="ts">
import { ref, watch } from 'vue'

import { type DxfFound, type Edit, type Problem, type RoomsFound } from '../../api/client'
import { postFile } from '../../api/upload'
import { useJob } from '../../stores/job'
import { useNotice } from '../../stores/notice'

/** A drawing brought in: look at its layers, confirm its unit, take the rooms. What is not understood is listed. */
const store = useJob()
const notice = useNotice()
const shown = defineModel<boolean>({ required: true })
const file = ref<File | null>(null)
const found = ref<DxfFound | null>(null)
const problem = ref<Problem | null>(null)
const units = ref('')
const layers = ref<string[]>([])
const UNITS = ['inches', 'feet', 'millimetres', 'centimetres', 'metres']
const MOST = 8 * 1024 * 1024

watch(shown, () => {
  file.value = found.value = problem.value = null
  layers.value = []
})

async function choose(event: Event) {
  const chosen = (event.target as HTMLInputElement).files?.[0]
  found.value = problem.value = null
  if (!chosen) return
  if (chosen.size > MOST) {
    problem.value = {
      status: 413,
      title: 'Refused',
      detail: `${chosen.name} is over 8 MB; nothing was brought in`,
    }
    return
  }
  file.value = chosen
  const answer = await postFile<DxfFound>('/api/dxf/inspect', chosen)
  problem.value = answer.problem ?? null
  if (!answer.data) return
  found.value = answer.data
  units.value = answer.data.units
  layers.value = answer.data.layers.filter((l) => l.outlines).map((l) => l.name)
}

async function bring() {
  if (!file.value || !store.view || !store.levelId) return
  const query = new URLSearchParams({ level: store.levelId, units: units.value })
  for (const layer of layers.value) query.append('layer', layer)
  const answer = await postFile<RoomsFound>(`/api/dxf/rooms?${query}`, file.value)
  problem.value = answer.problem ?? null
  if (!answer.data) return
  problem.value = await store.edit(answer.data.edits as Edit[], answer.data.label)
  if (problem.value) return
  shown.value = false
  notice.tell('The rooms are here.', 'fine', { label: 'Undo', act: store.undo })
}
const skipped = (counts: Record<string, number>) =>
  Object.entries(counts)
    .map(([kind, count]) => `${count} ${kind.toLowerCase()}`)
    .join(', ')
</script>

<template>
  <v-dialog aria-label="Bring in a drawing" v-model="shown">
    <v-card class="pa-5" data-testid="dxf-dialog">
      <h2>Rooms from a DXF drawing</h2>
      <input
        type="file"
        accept=".dxf"
        class="file"
        aria-label="DXF drawing"
        data-testid="dxf-file"
        @change="choose"
      />
      <p v-if="problem" class="bad" role="alert">{{ problem.detail }}</p>
      <template v-if="found">
        <v-select
          v-model="units"
          :items="UNITS"
          label="One unit of the drawing is one of"
          :hint="
            found.units
              ? `The drawing says ${found.units}: ${found.wide.toFixed(1)} wide, ${found.deep.toFixed(1)} deep.`
              : `The drawing names no unit. It is ${found.wide.toFixed(1)} wide and ${found.deep.toFixed(1)} deep: choose.`
          "
          persistent-hint
        />
        <table class="num">
          <thead>
            <tr>
              <th>take</th>
              <th>layer</th>
              <th>outlines</th>
              <th>lines</th>
              <th>names</th>
              <th>not understood</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="layer in found.layers" :key="layer.name">
              <td><v-checkbox v-model="layers" :value="layer.name" :aria-label="`Take ${layer.name}`" /></td>
              <td>{{ layer.name }}</td>
              <td>{{ layer.outlines }}</td>
              <td>{{ layer.lines }}</td>
              <td>{{ layer.texts }}</td>
              <td class="mute">{{ skipped(layer.skipped) || 'nothing' }}</td>
            </tr>
          </tbody>
        </table>
      </template>
      <div class="d-flex ga-2 justify-end mt-3">
        <v-btn variant="text" @click="shown = false">Leave it</v-btn>
        <v-btn variant="flat" color="ink" :disabled="!found || !units || !layers.length" @click="bring"
          >Bring in the rooms</v-btn
        >
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.file {
  margin: 12px 0;
}
table {
  width: 100%;
  margin-top: 10px;
  border-collapse: collapse;
}
th {
  text-align: left;
  color: var(--mute);
  font-weight: 600;
  font-size: 14px;
}
td {
  border-top: 1px solid var(--rule);
}
.bad {
  color: var(--stop);
}
</style>
