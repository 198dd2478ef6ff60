<script setup lang="ts">
import { computed } from 'vue'

import type { CutSheet } from '../../api/client'
import { alike, jacket, widthOf } from './bars'

/** One kind of cable, wire or pipe: its coils or sticks to one scale, each with its cuts, longest first. */
const props = defineProps<{ sheet: CutSheet; most: number; here?: boolean; seeking?: number | null }>()
const emit = defineEmits<{ look: [circuit: string]; seek: []; stop: [] }>()
const rows = computed(() => alike(props.sheet.bars))
const colour = computed(() => jacket(props.sheet.item))
const coil = computed(() => props.sheet.unit === 'ft')
const feet = computed(() => props.sheet.by_foot.reduce((sum, cut) => sum + cut.long, 0))
</script>

<template>
  <section class="sheet" :class="[{ here }, colour]" :data-sheet="sheet.item">
    <header>
      <h3>{{ sheet.title }}</h3>
      <span class="mute num">{{ sheet.note }}</span>
    </header>
    <p v-if="sheet.lacking" class="lacking num" role="status">{{ sheet.lacking }}</p>
    <ol>
      <li v-for="row in rows" :key="row.first" class="bar">
        <span class="what num">
          <svg v-if="coil" viewBox="0 0 36 36" aria-hidden="true">
            <circle cx="18" cy="18" r="16.5" class="jacket" />
            <circle cx="18" cy="18" r="11" />
            <circle cx="18" cy="18" r="5.5" class="eye" />
          </svg>
          <b>{{
            coil ? row.bar.title : `${row.first}${row.count > 1 ? ` to ${row.first + row.count - 1}` : ''}`
          }}</b>
          <span class="mute">{{ row.bar.price }}{{ row.count > 1 ? ` × ${row.count}` : '' }}</span>
        </span>
        <span class="track">
          <span class="stock" :style="{ width: `${widthOf(row.bar.length, most)}%` }">
            <button
              v-for="(cut, at) in row.bar.cuts"
              :key="at"
              type="button"
              class="plain cut num"
              :style="{ width: `${widthOf(cut.long, row.bar.length)}%` }"
              :title="`${cut.label}: ${cut.text}`"
              @click="cut.circuit && emit('look', cut.circuit)"
            >
              <b>{{ cut.label }}</b>{{ ' ' }}<span>{{ cut.text }}</span>
            </button>
          </span>
          <span class="left mute num">{{ row.bar.left_text }}</span>
        </span>
      </li>
      <li v-if="sheet.by_foot.length" class="bar foot">
        <span class="what num"
          ><b>by the foot</b><span class="mute">{{ Math.ceil(feet) }}′</span></span
        >
        <span class="feet num">
          <span v-for="(cut, at) in sheet.by_foot" :key="at"
            >{{ cut.label }} <b>{{ cut.text }}</b></span
          >
        </span>
      </li>
    </ol>
    <p v-if="sheet.guess" class="guess">{{ sheet.guess }}</p>
    <p v-if="!sheet.proven && coil" class="seek no-print">
      <template v-if="seeking != null">
        <v-progress-linear :model-value="seeking * 100" color="primary" aria-label="how far the search is" />
        <button type="button" class="plain link" @click="emit('stop')">Stop</button>
      </template>
      <v-btn v-else size="small" variant="outlined" @click="emit('seek')"
        >Search longer for cheaper coils</v-btn
      >
    </p>
  </section>
</template>

<style scoped>
.sheet {
  padding: 9px 14px 8px;
  border-bottom: 1px solid var(--rule);
  background: var(--card);
  --stock: var(--concrete);
  --on: #20262a;
}
.sheet.here {
  box-shadow: inset 4px 0 0 var(--lime);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin-bottom: 5px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.bar {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  gap: 8px;
  align-items: center;
  padding: 2px 0;
}
.what {
  display: grid;
  grid-template-columns: 26px 1fr;
  column-gap: 6px;
  line-height: 1.15;
  font-size: 14.5px;
}
.what svg {
  width: 26px;
  grid-row: span 2;
}
.what b,
.what .mute {
  grid-column: 2;
}
circle {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
}
circle.jacket {
  fill: var(--stock);
}
circle.eye {
  fill: var(--card);
}
.track {
  display: flex;
  align-items: center;
  min-width: 0;
  padding-right: 74px;
  position: relative;
}
.stock {
  display: flex;
  flex: none;
  height: 31px;
  border: 1.5px dashed var(--mute);
  min-width: 0;
}
.left {
  padding-left: 8px;
  white-space: nowrap;
  font-size: 13.5px;
}
.cut {
  display: flex;
  flex-direction: column;
  justify-content: center;
  align-items: center;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: clip;
  margin: -1.5px 0;
  background: var(--stock);
  color: var(--on);
  border: 1.5px solid #20262a;
  border-radius: 0;
  padding: 0;
  font-size: 12.5px;
  line-height: 1.08;
  min-height: 0;
  container-type: inline-size;
}
.cut:first-child {
  margin-left: -1.5px;
}
.cut > * {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
@container (max-width: 38px) {
  .cut > b {
    position: absolute;
    clip-path: inset(50%);
  }
}
@container (max-width: 17px) {
  .cut > span {
    position: absolute;
    clip-path: inset(50%);
  }
}
.cut + .cut {
  border-left-width: 0;
}
.cut:focus-visible {
  outline: 3px solid var(--chalk);
  outline-offset: -2px;
  z-index: 1;
}
.feet {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  font-size: 14px;
}
.guess,
.lacking {
  margin: 5px 0 0;
  color: var(--stop);
  font-weight: 600;
  font-size: 14.5px;
}
.lacking {
  margin: 0 0 4px;
}
.seek {
  margin: 6px 0 0;
  max-width: 340px;
}
.nm14,
.wire-white {
  --stock: #f4f1e6;
}
.nm12 {
  --stock: #e6c43c;
}
.nm10 {
  --stock: #e09a4f;
}
.nm8,
.wire-black {
  --stock: #3d4449;
  --on: #fff;
}
.earth {
  --stock: #a9aeb1;
}
.steel {
  --stock: #c3ccd4;
}
.wire-red {
  --stock: #b6402f;
  --on: #fff;
}
.wire-blue {
  --stock: #2f5f9e;
  --on: #fff;
}
.wire-brown {
  --stock: #7a5638;
  --on: #fff;
}
.wire-green {
  --stock: #3c7447;
  --on: #fff;
}
.wire-copper {
  --stock: #c98a5b;
}
.pipe {
  --stock: #c4c9cf;
}
@media (max-width: 600px) {
  .bar {
    grid-template-columns: 80px minmax(0, 1fr);
  }
  .track {
    padding-right: 0;
    flex-wrap: wrap;
  }
  .what svg {
    display: none;
  }
  .what {
    grid-template-columns: 1fr;
  }
  .what b,
  .what .mute {
    grid-column: 1;
  }
}
</style>
