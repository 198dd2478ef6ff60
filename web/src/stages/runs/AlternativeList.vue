<script setup lang="ts">
import { computed, ref } from 'vue'

import type { Alternative, Mend } from '../../api/client'

/** Every method for the leg: yes, if, no; a tap takes it. Those that may never go there fold away. */
const props = defineProps<{ items: Alternative[] }>()
const emit = defineEmits<{ mend: [mend: Mend] }>()

const all = ref(false)
const shown = computed(() => {
  const [yes, maybe, no] = (['yes', 'if', 'no'] as const).map((v) =>
    props.items.filter((i) => i.verdict === v && (v === 'no' || i.dollars !== null)),
  )
  const current = props.items.filter((i) => i.current && i.verdict === 'no')
  if (all.value) return props.items
  return [
    ...current,
    ...(yes ?? []).slice(0, 3),
    ...(maybe ?? []).slice(0, 1),
    ...(no ?? []).filter((i) => !i.current).slice(0, 1),
  ]
})
const GLYPH: Record<string, string> = { yes: '●', if: '◐', no: '✕' }
</script>

<template>
  <div>
    <ul data-testid="alternatives">
      <li v-for="item in shown" :key="item.method" :class="[item.verdict, { current: item.current }]">
        <component
          :is="item.mend ? 'button' : 'div'"
          :type="item.mend ? 'button' : undefined"
          class="plain item"
          :title="item.mend ? item.mend.label : undefined"
          @click="item.mend && emit('mend', item.mend)"
        >
          <i :aria-label="item.verdict">{{ GLYPH[item.verdict] }}</i>
          <span class="num name"
            >{{ item.name }} <em v-if="item.current">now</em
            ><span class="mute section">{{ item.section }}</span></span
          >
          <span class="mute text">{{ item.text }}</span>
        </component>
      </li>
      <li v-if="items.length > shown.length || all" class="more no-print">
        <button type="button" class="plain num" @click="all = !all">
          {{ all ? 'Fewer' : `All ${items.length} methods, with the reason` }}
        </button>
      </li>
    </ul>
    <p class="mute foot">
      Cheapest foot first: material, minutes, ease of a later change. Costs are common practice.
    </p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-top: 1px solid var(--rule);
}
.item {
  display: grid;
  grid-template-columns: 18px 1fr;
  width: 100%;
  padding: 5px 0 6px;
}
button.item:hover {
  background: var(--note-wash);
}
i {
  font-style: normal;
  grid-row: span 2;
  color: var(--fine);
}
.if i {
  color: var(--check-mark);
}
.no i {
  color: var(--stop);
}
.name {
  font-weight: 600;
  font-size: 15.5px;
}
.section {
  font-weight: 400;
  font-size: 13px;
  float: right;
  max-width: 45%;
  text-align: right;
}
.text {
  font-size: 14px;
}
em {
  font-style: normal;
  color: var(--chalk);
  border: 1px solid var(--chalk);
  border-radius: 3px;
  padding: 0 4px;
  font-size: 13px;
}
.more button {
  padding: 6px 0 4px 18px;
  color: var(--chalk);
  font-weight: 600;
}
.foot {
  font-size: 13px;
  margin: 4px 0 0;
}
</style>
