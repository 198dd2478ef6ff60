<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { STAGES } from '../router'
import { COMMON } from './keys'

/** The keys of the stage that is open, then those that work everywhere. */
const shown = defineModel<boolean>({ required: true })
const route = useRoute()
const stage = computed(() => STAGES.find((item) => route.path.startsWith(item.path)))
</script>

<template>
  <v-dialog v-model="shown">
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
