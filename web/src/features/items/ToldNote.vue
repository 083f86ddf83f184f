<script setup lang="ts">
import type { Told } from './answer'
import { SAYS } from './words'

/** What is told of a part of an answer: whether it holds, and words beside it. */
defineProps<{ told: Told | null }>()
</script>

<template>
  <span v-if="told?.verdict" class="verdict" :class="told.verdict"
    >{{ SAYS[told.verdict] }}<span v-if="told.words" class="words">{{ told.words }}</span></span
  >
</template>

<style scoped>
.verdict {
  color: var(--holds);
  margin: 4px 0;
}
.verdict.look,
.verdict.unread {
  color: var(--breaks);
}
.words {
  color: var(--ink);
  margin-left: 10px;
}
</style>
