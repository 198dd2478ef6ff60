<script setup lang="ts">
import { computed } from 'vue'

import { COMMON, letters, setLetters } from '../stage/keys'
import { PLACES } from '../stage/stages'
import { useLook } from '../stores/look'

/** The keys of the stage that is open, then those that work everywhere. */
const shown = defineModel<boolean>({ required: true })
const look = useLook()
const stage = computed(() => PLACES.find((item) => item.key === look.stage))
</script>

<template>
  <v-dialog aria-label="Keys" v-model="shown">
    <v-card class="pa-5" data-testid="keys">
      <h2>Keys</h2>
      <table class="num">
        <tbody>
          <tr v-if="stage">
            <th colspan="2" class="caps">{{ stage.name }}</th>
          </tr>
          <tr v-for="[key, what] in stage?.keys ?? []" :key="key">
            <td>
              <span class="key">{{ key }}</span>
            </td>
            <td>{{ what }}</td>
          </tr>
          <tr>
            <th colspan="2" class="caps">Everywhere</th>
          </tr>
          <tr v-for="[key, what] in COMMON" :key="key">
            <td>
              <span class="key">{{ key }}</span>
            </td>
            <td>{{ what }}</td>
          </tr>
        </tbody>
      </table>
      <v-checkbox
        label="Single letters act while the stage has the focus"
        :model-value="letters"
        @update:model-value="setLetters(!!$event)"
      />
    </v-card>
  </v-dialog>
</template>

<style scoped>
table {
  margin-top: 4px;
  font-size: 15.5px;
}
th {
  text-align: left;
  padding: 10px 0 3px;
}
td {
  padding: 4px 12px 4px 0;
  vertical-align: top;
}
</style>
