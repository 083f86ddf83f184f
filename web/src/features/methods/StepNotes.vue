<script setup lang="ts">
import type { Step } from './store'
import MathText from '@/components/MathText.vue'
import SideWork from '@/components/SideWork.vue'

/** What is to be said of a step: both lines with the places where it acts, the rule, the reason, the side work. */
defineProps<{ step: Step | null; number: number }>()
</script>

<template>
  <aside class="step" aria-label="What is to be said of this step">
    <template v-if="step">
      <p class="muted small">Step {{ number }}</p>
      <h2>{{ step.name }}</h2>
      <p class="reason">{{ step.reason }}</p>
      <div v-if="step.kind === 'line'" class="pair">
        <MathText :latex="`${step.before_echo.left} ${step.before_echo.right}`" />
        <span class="arrow" aria-hidden="true">↓</span>
        <MathText :latex="`${step.after_echo.left} ${step.after_echo.right}`" />
      </div>
      <SideWork v-for="(work, k) in step.side_work" :key="k" :work="work" />
      <p v-if="step.excluded.length" class="muted small">excluded: {{ step.excluded.join(', ') }}</p>
      <p v-if="step.lurking.length" class="small lurking">
        <b>What goes wrong here:</b> {{ step.lurking.join(' · ') }}
      </p>
      <p v-if="step.noticed.length" class="small">to be noticed: {{ step.noticed.join(', ') }}</p>
    </template>
  </aside>
</template>

<style scoped>
.step {
  padding: 22px;
  font-size: 14.5px;
}
h2 {
  font-size: 19px;
}
.reason {
  margin: 6px 0 10px;
}
.pair {
  display: grid;
  gap: 4px;
  overflow-x: auto;
  overflow-y: hidden;
  padding: 4px 0;
}
.arrow {
  color: var(--muted);
}
.lurking {
  border-left: 3px solid color-mix(in srgb, var(--breaks) 60%, transparent);
  padding-left: 10px;
}
.small {
  font-size: 13px;
  margin-top: 8px;
}
</style>
