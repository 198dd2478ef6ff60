<script setup lang="ts">
import { KEYS } from '../stages/runs/runKeys'

const shown = defineModel<boolean>({ required: true })
</script>

<template>
  <v-dialog v-model="shown">
    <v-card class="pa-5" data-testid="keys">
      <h2>Keys</h2>
      <table class="num">
        <tbody>
          <tr v-for="[key, what] in KEYS" :key="key">
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
  margin-top: 10px;
  font-size: 15.5px;
}
td {
  padding: 4px 12px 4px 0;
  vertical-align: top;
}
</style>
