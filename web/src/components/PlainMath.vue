<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import MathText from './MathText.vue'
import { pieces } from '@/lib/plainmath'
import { known, typeset } from '@/lib/typeset'

/**
 * Mathematics that is given in the plain notation: typeset as soon as the core has said how, plain until then and where
 * it can't.
 */
const props = withDefaults(defineProps<{ text: string | number; display?: boolean }>(), { display: false })
const plain = computed(() => String(props.text))
const isPlain = computed(() => /^[-−]?\d*$/.test(plain.value))
const parts = computed(() => pieces(plain.value))
const latex = ref('')
watch(
  plain,
  async (now) => {
    latex.value = known(now) ?? ''
    if (latex.value || isPlain.value) return
    const found = await typeset(now)
    if (now === plain.value) latex.value = found
  },
  { immediate: true },
)
</script>

<template>
  <span v-if="latex"
    ><span class="visually-hidden">{{ plain }}</span
    ><MathText aria-hidden="true" :latex="latex" :display="display"
  /></span>
  <span v-else class="plain" :class="{ number: isPlain }">
    <template v-for="(part, k) in parts" :key="k"
      ><sup v-if="part.raised">{{ part.text }}</sup
      ><template v-else>{{ part.text }}</template></template
    >
  </span>
</template>

<style scoped>
.plain {
  white-space: nowrap;
}
/* a number stands in the face of the mathematics, beside what is typeset */
.number {
  font-family: KaTeX_Main, serif;
  font-size: 1.15em;
}
sup {
  font-size: 0.72em;
  line-height: 0;
}
</style>
