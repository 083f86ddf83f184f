<script setup lang="ts">
import { computed } from 'vue'
import type { Step } from './store'
import MathText from '@/components/MathText.vue'

/** One line of a worked solution with its move, and the name of the rule under it when one is on it. */
const props = defineProps<{ step: Step; here: boolean }>()
/** An expression, or statements joined by `or`: one piece without an equals sign to stand under. */
const whole = computed(() => !props.step.after_echo.left || !props.step.after_echo.right)
</script>

<template>
  <li
    class="worked"
    :class="{ here, aside: !['line', 'zero', 'statement'].includes(step.kind), whole }"
    :aria-current="here"
  >
    <span class="left">
      <span v-if="step.after_echo.prefix" class="prefix">{{ step.after_echo.prefix }}</span>
      <MathText :latex="step.after_echo.left || step.after_echo.right" />
    </span>
    <span v-if="!whole" class="right"><MathText :latex="step.after_echo.right" /></span>
    <span class="rule"
      >{{ step.name
      }}<span v-if="step.after_echo.move" class="move"><MathText :latex="step.after_echo.move" :display="false" /></span
    ></span>
  </li>
</template>

<style scoped>
/* The columns are those of the list, so that equals signs stand under each other. */
.worked {
  display: grid;
  grid-template-columns: subgrid;
  grid-column: 1 / -1;
  align-items: baseline;
  padding: 5px 8px 5px 5px;
  border-left: 3px solid transparent;
  cursor: default;
}
.worked.here {
  border-left-color: var(--settles);
  background: var(--quiet);
}
.left,
.right {
  font-size: 1.1em;
  padding-block: 2px;
  white-space: nowrap;
}
.left {
  text-align: right;
}
.right {
  padding-left: 0.28em;
}
.whole .left {
  grid-column: 1 / -1;
  text-align: left;
}
.aside .left,
.aside .right {
  font-size: 0.95em;
}
.prefix {
  color: var(--muted);
  font-size: 13px;
  margin-right: 6px;
}
.rule {
  grid-column: 1 / -1;
  color: var(--muted);
  font-size: 13px;
}
.move {
  border-left: 2px solid var(--hairline);
  margin-left: 10px;
  padding-left: 8px;
}
</style>
