<script setup lang="ts">
import { nextTick, onBeforeUnmount, onMounted, ref } from 'vue'

import { beginsByTyping, useBegin } from './begin'

/** The first page there is, while nothing was begun: a job in one tap or key, or the demo to look round in. */
const begin = useBegin()
const first = ref<{ $el: HTMLElement } | null>(null)

onMounted(() => void nextTick(() => first.value?.$el.focus()))
onBeforeUnmount(beginsByTyping(() => begin({ name: 'New job' })))
</script>

<template>
  <section class="none" data-testid="no-job">
    <div>
      <h1>No job yet</h1>
      <p>
        A job is one circuit in an old house or a whole building. It begins with one sentence, such as
        <em>24′ of garage wall to a vehicle of 48 A</em>, and is drawn as far as you need it.
      </p>
      <v-btn
        ref="first"
        variant="flat"
        color="ink"
        data-testid="begin-job"
        @click="begin({ name: 'New job' })"
      >
        Begin a job
      </v-btn>
      <v-btn variant="outlined" data-testid="open-demo" @click="begin({ sample: 'quince-hollow' })">
        Look round the demo
      </v-btn>
      <p class="mute">A job saved as a file or as text comes in by the menu of jobs above.</p>
    </div>
  </section>
</template>

<style scoped>
.none {
  height: 100%;
  display: flex;
  align-items: center;
  padding: 24px 22px;
}
.none > div {
  max-width: 560px;
  margin: 0 auto;
  padding: 22px 26px 16px;
  background: var(--card);
  border-left: 5px solid var(--lime);
}
h1 {
  font-size: 26px;
  font-weight: 600;
  margin: 0;
}
p {
  font-size: 18px;
  line-height: 1.45;
  margin: 8px 0 14px;
}
em {
  font-style: normal;
  color: var(--chalk);
  font-weight: 600;
}
.mute {
  font-size: 15px;
  margin: 14px 0 0;
}
.v-btn + .v-btn {
  margin-left: 8px;
}
</style>
