<script setup lang="ts">
import type { BoxCard, CardCable } from '../../api/client'

/** A box as it is made up: cables as they come in with their letters, joints with their wires, tails, connectors. */
defineProps<{ card: BoxCard }>()
const at = (card: BoxCard, ...edges: string[]) =>
  card.cables.filter((cable: CardCable) => edges.includes(cable.at))
const LINES = [7, 15, 23, 31, 39]
</script>

<template>
  <figure class="num" :data-card="card.name">
    <ol class="ends top" aria-label="Leave at the top">
      <li v-for="cable in at(card, 'top', 'any', 'through')" :key="cable.letter + cable.box">
        <span
          ><b>{{ cable.letter }}</b> {{ cable.text }}</span
        >
        <small class="mute">{{ cable.what }}</small>
        <i :class="[`w${cable.gauge}`, { pipe: !cable.gauge }]" />
      </li>
      <li v-if="!at(card, 'top', 'any', 'through').length" class="none mute">nothing goes on from here</li>
    </ol>
    <div class="inside">
      <p v-if="card.volume" class="mute vol">{{ card.volume }}</p>
      <div v-for="(joint, i) in card.joints" :key="joint.what + i" class="joint">
        <svg viewBox="0 0 78 46" aria-hidden="true">
          <path
            v-for="(colour, n) in joint.colours.slice(0, 5)"
            :key="n"
            :d="`M2 ${LINES[n]}L44 ${15 + n * 4}`"
            class="wire"
            :class="colour"
          />
          <path
            v-for="n in Math.min(joint.tails, 3)"
            :key="`t${n}`"
            :d="`M56 ${16 + n * 5}H76`"
            class="wire"
            :class="joint.colours[0]"
          />
          <path d="M42 12h10l8 6v10l-8 6H42z" class="cap" />
        </svg>
        <p>
          <b>{{ joint.text }}</b>
          <small class="mute">{{ joint.connector }}{{ joint.section ? ` · ${joint.section}` : '' }}</small>
        </p>
      </div>
      <p v-if="!card.joints.length" class="mute">
        {{
          card.cables.length
            ? 'Nothing is joined here: the wires land on terminals.'
            : 'No cable comes here yet.'
        }}
      </p>
      <p v-for="note in card.notes" :key="note" class="note">{{ note }}</p>
    </div>
    <ol class="ends bottom" aria-label="Come in at the bottom">
      <li v-for="cable in at(card, 'bottom')" :key="cable.letter + cable.box">
        <i :class="[`w${cable.gauge}`, { pipe: !cable.gauge }]" />
        <span
          ><b>{{ cable.letter }}</b> {{ cable.text }}</span
        >
        <small class="mute">{{ cable.what }} · power in at the bottom</small>
      </li>
    </ol>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  min-width: 0;
}
.ends {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  list-style: none;
  margin: 0;
  padding: 0 14px;
  font-size: 14.5px;
}
.ends li {
  display: flex;
  flex-direction: column;
  min-width: 96px;
}
.ends small {
  font-size: 13px;
}
.ends i {
  width: 13px;
  height: 20px;
  background: var(--jacket, #4a4f52);
  border: 1.4px solid #20262a;
  border-block: 0;
  margin-left: 10px;
}
.ends i.pipe {
  background: #9aa3a8;
}
.none {
  padding-bottom: 6px;
}
.inside {
  border: 2.2px solid var(--ink);
  border-radius: 6px;
  padding: 8px 12px;
  background: color-mix(in srgb, var(--chalk) 7%, var(--card));
}
.vol {
  float: right;
  margin: 0 0 0 8px;
  font-size: 13.5px;
}
.joint {
  display: grid;
  grid-template-columns: 78px 1fr;
  gap: 10px;
  align-items: center;
  min-height: 44px;
}
.joint svg {
  width: 78px;
}
.joint p {
  margin: 0;
  font-size: 15px;
}
.joint b {
  font-weight: 600;
}
.joint small {
  display: block;
  font-size: 13.5px;
}
.wire {
  fill: none;
  stroke-width: 4;
  stroke: #20262a;
}
.wire.white {
  stroke: #fcfbf7;
  filter: drop-shadow(0 0 0.8px #20262a);
}
.wire.red {
  stroke: #b3261e;
}
.wire.blue {
  stroke: #2b5c9e;
}
.wire.brown {
  stroke: #7a4b24;
}
.wire.bare {
  stroke: #c1854a;
}
.wire.green {
  stroke: #3f7a45;
}
.cap {
  fill: #9aa3a8;
  stroke: #20262a;
  stroke-width: 1.2;
}
.note {
  margin: 6px 0 0;
  padding-top: 5px;
  border-top: 1px solid var(--rule);
  font-size: 14.5px;
}
</style>
