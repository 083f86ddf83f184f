<script setup lang="ts">
import type { Step } from './store'
import MathText from '@/components/MathText.vue'

/** One line of a worked solution with its move, and the name of the rule under it when one is on it. */
defineProps<{ step: Step; here: boolean }>()
</script>

<template>
  <li class="worked" :class="{ here, aside: !['line', 'zero', 'statement'].includes(step.kind) }" :aria-current="here">
    <span class="text">
      <span v-if="step.after_echo.prefix" class="prefix">{{ step.after_echo.prefix }}</span>
      <MathText :latex="`${step.after_echo.left} ${step.after_echo.right}`" />
    </span>
    <span v-if="step.after_echo.move" class="move"><MathText :latex="step.after_echo.move" :display="false" /></span>
    <span class="rule">{{ step.name }}</span>
  </li>
</template>

<style scoped>
.worked {
  display: grid;
  grid-template-columns: 1fr auto;
  padding: 5px 8px;
  border-left: 3px solid transparent;
  cursor: default;
}
.worked.here {
  border-left-color: var(--settles);
  background: var(--quiet);
}
.text {
  font-size: 1.1em;
  overflow-x: auto;
  overflow-y: hidden;
  padding-block: 2px;
}
.aside .text {
  font-size: 0.95em;
  padding-left: 14px;
}
.prefix {
  color: var(--muted);
  font-size: 13px;
  margin-right: 6px;
}
.move {
  color: var(--muted);
  border-left: 2px solid var(--hairline);
  padding-left: 8px;
  align-self: center;
}
.rule {
  grid-column: 1 / -1;
  color: var(--muted);
  font-size: 13px;
}
</style>
