<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRoom } from './store'
import MathText from '@/components/MathText.vue'
import LineEditor from '@/features/chain/LineEditor.vue'

/** What the class is asked from the board just now: which line breaks, or how it goes on. */
const store = useRoom()
defineProps<{ decimal: 'point' | 'comma' }>()
const text = ref('')
watch(
  () => [store.room?.ask?.id, store.room?.ask?.answer],
  () => (text.value = store.room?.ask?.answer ?? ''),
  { immediate: true },
)
</script>

<template>
  <section v-if="store.room?.ask" class="ask" aria-label="Asked from the board">
    <h2>{{ store.room.ask.kind === 'vote' ? 'Which line breaks?' : 'How does it go on?' }}</h2>
    <p class="given"><MathText :latex="store.room.ask.given_latex" /></p>
    <template v-if="store.room.ask.kind === 'vote'">
      <button
        v-for="(latex, k) in store.room.ask.lines"
        :key="k"
        class="plain-button line"
        :aria-pressed="text === String(k + 1)"
        @click="store.answer(String(k + 1))"
      >
        <b>{{ k + 1 }}</b> <MathText :latex="latex" />
      </button>
      <button class="plain-button line" :aria-pressed="text === '0'" @click="store.answer('0')">none breaks</button>
    </template>
    <template v-else>
      <p v-for="(latex, k) in store.room.ask.lines" :key="k" class="line"><MathText :latex="latex" /></p>
      <LineEditor
        v-model:text="text"
        :decimal="decimal"
        label="Your next line"
        hint="how it goes on"
        @commit="store.answer($event)"
      />
    </template>
    <p v-if="store.room.ask.answer" class="muted" role="status">Your answer is there. You can change it.</p>
  </section>
</template>

<style scoped>
.ask {
  border: 2px solid var(--settles);
  border-radius: 10px;
  padding: 8px 16px 12px;
  margin: 12px 0;
}
h2 {
  font-size: 18px;
  margin: 4px 0;
}
.line {
  display: flex;
  gap: 14px;
  align-items: center;
  width: 100%;
  min-height: 44px;
  margin-bottom: 6px;
  font-size: 17px;
  text-align: left;
  overflow-x: auto;
}
.line[aria-pressed='true'] {
  box-shadow: inset 4px 0 var(--settles);
}
</style>
