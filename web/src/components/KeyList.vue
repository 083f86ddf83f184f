<script setup lang="ts">
import type { Group } from '@/lib/shortcuts'

/** The shortcuts of a list or a table, below it. */
defineProps<{ group: Group<string> }>()
</script>

<template>
  <p class="keys muted">
    <span v-for="row in group.rows" :key="row.shown"
      ><kbd>{{ row.shown }}</kbd> {{ row.what }}</span
    >
  </p>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  margin-top: 16px;
  font-size: 13px;
}
</style>
