<script setup lang="ts">
import katex from 'katex'
import { computed } from 'vue'

/** Typeset mathematics. `display` sets fractions at full height. */
const props = withDefaults(defineProps<{ latex: string; display?: boolean }>(), { display: true })

const html = computed(() =>
  katex.renderToString((props.display ? '\\displaystyle ' : '') + props.latex, {
    throwOnError: false,
    strict: 'ignore',
    trust: (context) => context.command === '\\htmlClass',
    maxSize: 50,
    maxExpand: 500,
  }),
)
</script>

<template>
  <!-- KaTeX escapes what it sets, and only \htmlClass is trusted -->
  <span class="math" v-html="html" />
</template>

<style scoped>
.math {
  white-space: nowrap;
}
</style>
