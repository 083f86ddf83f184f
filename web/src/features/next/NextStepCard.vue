<script setup lang="ts">
import { computed } from 'vue'
import { useNextStep } from './store'
import MathText from '@/components/MathText.vue'
import SideWork from '@/components/SideWork.vue'
import TroubleNote from '@/components/TroubleNote.vue'

/** The next step: a hint, then the rule, then the line; each press tells a little more. */
const emit = defineEmits<{ more: [] }>()
const next = useNextStep()
const step = computed(() => next.hint?.step ?? null)
const BUTTONS = ['', 'Which rule?', 'Which line?', 'Write it']
</script>

<template>
  <section v-if="next.hint || next.trouble" class="next" aria-label="The next step" role="status">
    <header>
      <h2>The next step</h2>
      <button class="plain-button" aria-label="Put the hint away" @click="next.clear()">×</button>
    </header>
    <TroubleNote v-if="next.trouble" :request="next.request" />
    <template v-else-if="next.hint">
      <p>{{ next.hint.look }}</p>
      <template v-if="step && next.stage >= 2">
        <p class="rule">
          <b>{{ step.name }}.</b> {{ step.reason }}
        </p>
        <SideWork v-for="(work, k) in step.side_work" :key="k" :work="work" />
      </template>
      <p v-if="step && next.stage >= 3" class="line">
        <span v-if="step.after_echo.prefix" class="muted">{{ step.after_echo.prefix }} </span>
        <MathText :latex="`${step.after_echo.left} ${step.after_echo.right}`" />
        <span v-if="step.after_echo.move" class="muted"
          ><MathText :latex="step.after_echo.move" :display="false"
        /></span>
      </p>
      <p v-if="next.hint.method && next.stage >= 2" class="muted small">on the way of: {{ next.hint.method }}</p>
      <p v-if="next.hint.shorter" class="muted small">{{ next.hint.shorter }}</p>
      <el-button v-if="step" size="small" @click="emit('more')"
        >{{ BUTTONS[next.stage] }}&nbsp; <kbd>Alt H</kbd></el-button
      >
    </template>
  </section>
</template>

<style scoped>
.next {
  margin: 16px 16px 0;
  padding: 12px 14px;
  border: 1px solid var(--hairline);
  border-left: 4px solid var(--settles);
  border-radius: 8px;
  background: var(--sheet);
  font-size: 14.5px;
}
header {
  display: flex;
  justify-content: space-between;
}
h2 {
  margin: 0;
  font-size: 14px;
}
p {
  margin: 4px 0 8px;
}
.line {
  font-size: 1.15em;
  overflow-x: auto;
  overflow-y: hidden;
  display: flex;
  gap: 14px;
  align-items: center;
}
.small {
  font-size: 13px;
}
</style>
