<script setup lang="ts">
import type { Run } from '@/composables/useRun'

/** How far work is that takes longer than an answer may, and the way to cancel it. */
defineProps<{
  run: Pick<Run, 'total' | 'done' | 'ended'>
  /** What its parts are, such as “problems drawn”. */
  what: string
  away?: boolean
  quiet?: boolean
}>()
defineEmits<{ stop: [] }>()
</script>

<template>
  <div v-if="!run.ended" class="run">
    <el-progress
      :percentage="run.total ? Math.round((100 * run.done) / run.total) : 0"
      :show-text="false"
      :aria-label="`${run.done} of ${run.total} ${what}`"
    />
    <span role="status"
      >{{ run.done }} of {{ run.total }} {{ what }}<template v-if="away">; the server does not answer just now</template
      ><template v-else-if="quiet">; nobody works on it just now, it goes on by itself</template></span
    >
    <el-button size="small" @click="$emit('stop')">Cancel</el-button>
  </div>
</template>

<style scoped>
.run {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 6px 0;
}
.run .el-progress {
  flex: 1 1 160px;
  max-width: 280px;
}
</style>
