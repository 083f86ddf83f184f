<script setup lang="ts">
import { ref, watch } from 'vue'
import { useRequest } from '@/composables/useRequest'
import type { SheetRow } from '@/api/client'
import { useSheets } from './store'

/** Gives a colleague a copy of a sheet. What they change in it does not touch this one. */
const props = defineProps<{ row: SheetRow | null }>()
const emit = defineEmits<{ close: []; given: [words: string] }>()
const sheets = useSheets()
const request = useRequest('The server does not answer. Try again in a moment.')
const { trouble, busy } = request
const to = ref('')
const workings = ref(true)

watch(
  () => props.row,
  (row) => {
    if (!row) return
    to.value = ''
    workings.value = true
    void request.run(() => sheets.loadColleagues())
  },
)

async function give(): Promise<void> {
  const row = props.row
  if (!row || !to.value) return
  const name = sheets.colleagues.find((each) => each.username === to.value)?.name ?? to.value
  if (await request.run(() => sheets.giveCopy(row.id, to.value, workings.value)))
    emit('given', `${name} has a copy of “${row.title}”.`)
}
</script>

<template>
  <el-dialog :model-value="!!row" title="Give a colleague a copy" width="420" @close="emit('close')">
    <form class="entry" @submit.prevent="give">
      <p>“{{ row?.title }}” comes to stand among their sheets. What they change there does not touch yours.</p>
      <p v-if="!sheets.colleagues.length && !busy && !trouble" class="muted">
        There is no other teacher here yet. Whoever manages people can make an account.
      </p>
      <label v-else>
        <span>Colleague</span>
        <select v-model="to" required>
          <option value="" disabled>choose</option>
          <option v-for="each in sheets.colleagues" :key="each.username" :value="each.username">
            {{ each.name }} ({{ each.username }})
          </option>
        </select>
      </label>
      <label class="tick"><input v-model="workings" type="checkbox" /> with the workings, not only the problems</label>
      <p v-if="trouble" class="trouble" role="alert">{{ trouble }}</p>
      <div class="row">
        <el-button native-type="button" @click="emit('close')">Leave it</el-button>
        <el-button type="primary" native-type="submit" :disabled="!to" :loading="busy">Give the copy</el-button>
      </div>
    </form>
  </el-dialog>
</template>

<style scoped>
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
select {
  width: 100%;
  padding: 8px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.entry .tick input {
  width: auto;
}
</style>
