<script setup lang="ts">
/** What the line of the first page takes, with lines as they are said: each of another kind and in another order. */
defineProps<{ examples: boolean }>()
defineEmits<{ take: [line: string] }>()

const SAID = [
  "12-2 38' through the attic to a bath outlet",
  "from an existing light on 5, 12' of attic to an attic light",
  "range 50a, 6-3 40' along the crawl joists",
  "heat pump mca 24 max 40, 10-2 26' crawl",
  'well pump 1 hp 240v, 100\' trench 24" deep in uf',
  'shed 60a, 60\' in an 18" trench in 1" pvc',
]
</script>

<template>
  <div class="lead">
    <p class="mute">
      One sentence is enough, in any order: what stands there, how far and through what, the cable, from which
      panel. Its wire, breaker, box and lengths follow. Tap what it is for, or type it below.
    </p>
    <ul v-if="examples" aria-label="Lines as they are said">
      <li v-for="item in SAID" :key="item">
        <button type="button" class="plain num" @click="$emit('take', item)">{{ item }}</button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.lead {
  flex: 1 0 210px;
  padding: 8px 22px;
  max-width: 62ch;
}
ul {
  list-style: none;
  margin: 12px 0 0;
  padding: 0;
}
button {
  padding: 5px 0;
  min-height: 32px;
  font-size: 17px;
  color: var(--chalk);
  text-align: left;
}
</style>
