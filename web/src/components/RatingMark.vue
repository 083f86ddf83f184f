<script setup lang="ts">
import { useRegional } from '@/lib/regional'

/** How hard a problem is, from 1 to 10, as a number over a line of that length; empty where it is not known. */
defineProps<{ rating: number | null }>()
const { tenths } = useRegional()
</script>

<template>
  <span class="rating" aria-hidden="true"
    ><i v-if="rating" :style="{ width: `${rating * 10}%` }" />{{ tenths(rating) }}</span
  >
</template>

<style scoped>
.rating {
  position: relative;
  font-size: 13px;
  text-align: right;
  padding-bottom: 3px;
}
i {
  position: absolute;
  left: 0;
  bottom: 0;
  height: 3px;
  border-radius: 2px;
  background: var(--settles);
}
</style>
