<script setup lang="ts">
import { computed } from 'vue'
import { pieces } from '@/lib/plainmath'

/** The plain notation set for reading in a small figure, without a typesetter. */
const props = defineProps<{ text: string | number }>()
const parts = computed(() => pieces(String(props.text)))
</script>

<template>
  <span class="plain">
    <template v-for="(part, k) in parts" :key="k"><sup v-if="part.raised">{{ part.text }}</sup><template v-else>{{ part.text }}</template></template>
  </span>
</template>

<style scoped>
.plain {
  white-space: nowrap;
}
sup {
  font-size: 0.72em;
  line-height: 0;
}
</style>
