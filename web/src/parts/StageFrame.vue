<script setup lang="ts">
/**
 * The frame of a stage: the list at the left, the picture in the middle with its entry line, what is picked right.
 * `under`: a table under the picture; on a narrow screen the verdict comes before it, and the list last of all where
 * `listLast` says that it leads away from what is being said here.
 */
defineProps<{ listLast?: boolean }>()
</script>

<template>
  <div class="stage">
    <aside class="left no-print" :class="{ last: listLast }"><slot name="left" /></aside>
    <div class="centre" :class="{ split: $slots.under }">
      <slot />
      <div v-if="$slots.under" class="under"><slot name="under" /></div>
      <div class="entry no-print"><slot name="entry" /></div>
    </div>
    <aside class="right" aria-label="Selected" data-testid="panel"><slot name="right" /></aside>
  </div>
</template>

<style scoped>
.stage {
  display: grid;
  grid-template-columns: clamp(190px, 17.5vw, 224px) minmax(0, 1fr) clamp(272px, 24.4vw, 312px);
  height: 100%;
}
.left,
.right,
.centre {
  overflow-y: auto;
  min-height: 0;
}
.left {
  border-right: 1px solid var(--rule);
}
.right {
  border-left: 1px solid var(--rule);
  background: var(--card);
  padding: 13px 14px 18px;
}
.centre {
  display: flex;
  flex-direction: column;
}
.under {
  flex: none;
  padding: 4px 12px 0;
}
.entry:empty {
  display: none;
}
.entry {
  position: sticky;
  bottom: 0;
  padding: 8px 12px 10px;
  background: var(--paper);
}
@media (max-width: 1000px) {
  .stage {
    display: flex;
    flex-direction: column;
    overflow-y: auto;
  }
  .stage > * {
    flex: none;
    overflow: visible;
    border: 0;
  }
  .entry {
    position: static;
  }
  .stage > .centre.split {
    display: contents;
  }
  .split > .under,
  .split > .entry {
    order: 2;
    overflow-x: auto;
  }
  .left {
    max-height: 210px;
    overflow-y: auto;
    border-bottom: 1px solid var(--rule);
  }
  .left.last {
    order: 3;
    max-height: none;
  }
}
@media print {
  .stage {
    display: block;
    height: auto;
  }
  .right {
    border: 0;
  }
}
</style>
