<script setup lang="ts">
import katex from 'katex'
import { onMounted, ref, watch } from 'vue'

/** Typeset mathematics. `display` sets fractions at full height. */
const props = withDefaults(defineProps<{ latex: string; display?: boolean }>(), { display: true })

/** The classes by which the core tells places in a formula; nothing else in it is trusted. */
const MARKS = /^mark-(?:slip|focus|carry|cancel(?:-\d)?)$/
const place = ref<HTMLElement | null>(null)

/** Sets the formula as elements: of markup a browser takes no styles here. */
function set(): void {
  if (!place.value) return
  katex.render((props.display ? '\\displaystyle ' : '') + props.latex, place.value, {
    throwOnError: false,
    strict: 'ignore',
    trust: (context) => context.command === '\\htmlClass' && MARKS.test(context.class),
    maxSize: 50,
    maxExpand: 500,
  })
}
onMounted(set)
watch(() => [props.latex, props.display], set, { flush: 'post' })
</script>

<template>
  <span ref="place" class="math" />
</template>

<style scoped>
.math {
  white-space: nowrap;
}
</style>
