<script setup lang="ts">
import { computed } from 'vue'
import { useChain } from '@/features/chain/store'
import NotesPanel from '@/features/evidence/NotesPanel.vue'
import StepNotes from '@/features/methods/StepNotes.vue'
import { useMethods } from '@/features/methods/store'
import NextStepCard from '@/features/next/NextStepCard.vue'
import { useNextStep } from '@/features/next/store'
import { unknownOf } from '@/lib/tasks'

/** The right side of the desk: what is to be said of the line or step that is looked at. */
const props = defineProps<{ face: string; at: number }>()
const emit = defineEmits<{ more: [] }>()

const chain = useChain()
const methods = useMethods()
const next = useNextStep()
const link = computed(() => (props.at >= 0 ? chain.linkAt(props.at) : null))
</script>

<template>
  <StepNotes
    v-if="face === 'methods'"
    tabindex="-1"
    :number="methods.at + 1"
    :step="methods.found?.methods[methods.chosen]?.steps[methods.at] ?? null"
  />
  <div v-else tabindex="-1">
    <NextStepCard v-if="face === 'work'" @more="emit('more')" />
    <p v-if="face === 'work' && !next.hint && !next.trouble" class="ask">
      <button class="plain-button muted small" @click="emit('more')">Next step <kbd>Alt H</kbd></button>
    </p>
    <NotesPanel
      :number="at + 1"
      :text="chain.lines[at] ?? ''"
      :link="link"
      :report="chain.judged ? (chain.problem?.report ?? null) : null"
      :unknown="unknownOf(chain.problem)"
      :task="chain.problem?.task ?? ''"
      @use="(line) => chain.replace(at, line)"
    />
  </div>
</template>

<style scoped>
.ask {
  padding: 14px 16px 0;
}
.small {
  font-size: 13px;
}
</style>
