<script setup lang="ts">
import { computed } from 'vue'

import type { Where } from '../../api/client'

/** Where it may be: each fault with the reading that it would give, the likeliest first; the next reading to take. */
const props = defineProps<{ where: Where; text: string }>()
const scale = computed(() => {
  const all = props.where.suspects.flatMap((one) => [one.low, one.high])
  const most = Math.max(props.where.value, ...all.filter((value) => value < 1e6)) * 1.08 || 1
  return (value: number) => Math.min(Math.max((value / most) * 100, 0), 100)
})
</script>

<template>
  <section data-testid="where">
    <header class="num headed">
      <h2>Where it may be</h2>
      <span class="mute"
        >what each fault would read here, the likeliest first{{
          text ? `; ${text} is the red line` : ''
        }}</span
      >
    </header>
    <ol>
      <li v-for="one in where.suspects" :key="one.key" class="num" :data-suspect="one.key">
        <span>{{ one.title }}</span>
        <span class="line" aria-hidden="true">
          <i
            class="bar"
            :class="{ best: one.fits < 3 }"
            :style="{
              left: `${scale(one.low)}%`,
              width: `max(${scale(one.high) - scale(one.low)}%, 7px)`,
            }"
          />
          <i v-if="text" class="read" :style="{ left: `${scale(where.value)}%` }" />
        </span>
        <span class="mute">{{ one.text }}</span>
      </li>
    </ol>
    <p v-if="where.next" class="next num" data-testid="next-reading">
      <b>Read next: {{ where.next.text }}.</b>
      <span v-for="tells in where.next.tells" :key="tells" class="mute">{{ tells }}</span>
    </p>
    <p v-else class="next num mute">
      No reading that is left tells these apart: open the first one and look.
    </p>
  </section>
</template>

<style scoped>
section {
  background: var(--card);
  border-top: 1px solid var(--rule);
  padding-bottom: 10px;
}
ol {
  margin: 0;
  padding: 0 14px 0 32px;
}
li {
  font-size: 15px;
  padding: 3px 0;
}
li > span {
  display: inline-block;
  vertical-align: middle;
}
li > span:first-child {
  width: 38%;
}
.line {
  position: relative;
  width: 34%;
  height: 22px;
  background: linear-gradient(var(--rule), var(--rule)) center / 100% 1px no-repeat;
}
.line + .mute {
  width: 26%;
  text-align: right;
}
.bar {
  position: absolute;
  top: 5px;
  height: 12px;
  background: var(--rule);
  border: 1px solid var(--mute);
}
.bar.best {
  background: var(--lime);
  border-color: var(--lime-deep);
}
.read {
  position: absolute;
  inset-block: -3px;
  width: 2px;
  background: var(--stop);
}
.next {
  margin: 8px 14px 0;
  padding: 7px 10px;
  border-left: 5px solid var(--chalk);
  background: var(--note-wash);
  font-size: 15px;
}
.next span {
  display: block;
  font-size: 14px;
}
@media (max-width: 700px) {
  li > span:first-child {
    width: 100%;
  }
  .line {
    width: 60%;
  }
  .line + .mute {
    width: 38%;
  }
}
</style>
