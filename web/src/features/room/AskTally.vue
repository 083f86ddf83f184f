<script setup lang="ts">
import { computed } from 'vue'
import type { Schema } from '@/api/client'
import MathText from '@/components/MathText.vue'
import RelationGlyph from '@/components/RelationGlyph.vue'
import { relationWord, type Relation } from '@/lib/relations'

/**
 * What the room answers, without names: how many say that a line breaks, or the lines that it writes. Verdicts only
 * where they are to be seen.
 */
const props = defineProps<{ ask: Schema['AskOut']; seen: boolean }>()
const most = computed(() => Math.max(1, ...props.ask.answers.map((each) => each.count)))
const votes = (line: number): number => props.ask.answers.find((each) => each.text === String(line))?.count ?? 0
</script>

<template>
  <div class="tally" role="group" aria-label="Answers of the room">
    <p class="count" aria-live="polite">{{ ask.answered }} of {{ ask.here }} have answered</p>
    <ol v-if="ask.kind === 'vote'" class="votes">
      <li v-for="(latex, k) in ask.lines" :key="k" :class="{ right: seen && ask.right === k + 1 }">
        <span class="line"
          ><b>{{ k + 1 }}</b> <MathText :latex="latex"
        /></span>
        <span class="bar" :style="{ width: `${(votes(k + 1) / most) * 100}%` }" aria-hidden="true" /><b>{{
          votes(k + 1)
        }}</b>
        <em v-if="seen && ask.right === k + 1">this one breaks</em>
      </li>
      <li :class="{ right: seen && ask.right === 0 }">
        <span class="line">none breaks</span
        ><span class="bar" :style="{ width: `${(votes(0) / most) * 100}%` }" aria-hidden="true" /><b>{{ votes(0) }}</b>
        <em v-if="seen && ask.right === 0">they all hold</em>
      </li>
    </ol>
    <ol v-else class="tries">
      <li v-for="each in ask.answers" :key="each.text">
        <b>{{ each.count }}×</b> <span class="line"><MathText :latex="each.latex" /></span>
        <span v-if="seen && each.relation" class="said"
          ><RelationGlyph :relation="each.relation as Relation" :size="22" />
          {{ relationWord(each.relation, 'equation') }}</span
        >
      </li>
    </ol>
  </div>
</template>

<style scoped>
.tally {
  max-width: 1000px;
  margin: 0 auto;
  color: var(--ink);
  text-align: left;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 6px 10px;
  border-left: 3px solid var(--hairline);
  margin-bottom: 6px;
}
.votes li {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(80px, 1fr) 2.4em;
  gap: 14px;
  align-items: center;
}
.tries li {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
.line {
  display: flex;
  gap: 0.6em;
  align-items: center;
  overflow-x: auto;
}
.bar {
  height: 0.7em;
  background: var(--settles);
  border-radius: 3px;
  transition: width 0.3s;
}
.right {
  border-left-color: var(--breaks);
}
em {
  grid-column: 1 / -1;
}
.said {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  font-size: 0.8em;
}
.count {
  color: var(--muted);
  font-size: 0.75em;
}
@media (prefers-reduced-motion: reduce) {
  .bar {
    transition: none;
  }
}
</style>
