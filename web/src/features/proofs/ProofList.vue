<script setup lang="ts">
import type { Schema } from '@/api/client'
import MathText from '@/components/MathText.vue'
import PlainMath from '@/components/PlainMath.vue'
import RelationGlyph from '@/components/RelationGlyph.vue'
import TinyChain from '@/components/TinyChain.vue'
import type { Relation } from '@/lib/relations'
import type { Proofs } from './store'

/** What was found in a key, problem by problem, in the order of the text; a finding leads to its line there. */
defineProps<{ proofs: Proofs }>()
const emit = defineEmits<{ show: [line: number] }>()

type Finding = Schema['Finding']
const LINKS = new Set(['breaks', 'narrows', 'unclear'])
const relation = (finding: Finding): Relation | null => (LINKS.has(finding.kind) ? (finding.kind as Relation) : null)
</script>

<template>
  <ol class="proofs" aria-label="What was found">
    <li v-for="(problem, k) in proofs.problems" :key="k" :class="{ faulty: problem.findings.length }">
      <div class="head">
        <button class="plain-button label" :title="`line ${problem.at} of the text`" @click="emit('show', problem.at)">
          {{ problem.label }}
        </button>
        <span class="task muted">{{ problem.task }}</span>
        <span class="given"><MathText :latex="problem.given_latex || '\\cdot'" :display="false" /></span>
        <TinyChain class="tiny" :beads="problem.beads" :verdict="problem.verdict" :finished="problem.finished" />
        <span v-if="!problem.findings.length" class="all-holds">all holds</span>
      </div>
      <ul v-if="problem.findings.length">
        <li v-for="(finding, f) in problem.findings" :key="f">
          <RelationGlyph v-if="relation(finding)" class="glyph" :relation="relation(finding)" :size="26" />
          <span v-else class="glyph dot" aria-hidden="true">•</span>
          <p>
            <button
              v-if="finding.line && finding.place"
              class="plain-button place"
              @click="emit('show', finding.place)"
            >
              line {{ finding.place }}
            </button>
            {{ finding.text }}
            <span v-if="finding.instead" class="instead">right would be <PlainMath :text="finding.instead" /></span>
          </p>
        </li>
      </ul>
    </li>
  </ol>
</template>

<style scoped>
.proofs {
  list-style: none;
  margin: 0;
  padding: 0;
}
.proofs > li {
  padding: 11px 4px 11px 10px;
  border-bottom: 1px solid var(--hairline);
}
.head {
  display: flex;
  align-items: center;
  gap: 12px;
  min-width: 0;
}
.label {
  min-width: 34px;
  text-align: left;
  font-weight: 700;
}
.task {
  font-size: 13px;
}
.given {
  flex: 1;
  min-width: 0;
  overflow: hidden;
}
.all-holds {
  color: var(--holds);
  font-size: 13.5px;
  white-space: nowrap;
}
ul {
  list-style: none;
  margin: 6px 0 0;
  padding: 0 0 0 34px;
}
ul li {
  display: flex;
  gap: 10px;
  padding: 4px 0;
}
.glyph {
  flex: none;
  width: 18px;
}
.dot {
  text-align: center;
  color: var(--muted);
}
.place {
  font-size: 13px;
  color: var(--settles);
  margin-right: 4px;
}
.instead {
  display: block;
  color: var(--holds);
}
code {
  font-family: var(--mono);
  font-size: 13.5px;
}
</style>
