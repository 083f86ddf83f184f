<script setup lang="ts">
import { onMounted, ref } from 'vue'
import { useMarking } from './store'
import { inBase64, textOf } from '@/lib/files'

/** Taking in what a class wrote: pasted, or as a file. */
const emit = defineEmits<{ done: [] }>()
const marking = useMarking()
const text = ref('')
const area = ref<HTMLTextAreaElement | null>(null)
onMounted(() => area.value?.focus())
const EXAMPLE = `Ada Quill
1. 3x = 15
   x = 5
2. (x - 2)(x - 3) = 0
   x = 2 or x = 3

Bo Tarn
1. …`

async function takeText(): Promise<void> {
  if (!text.value.trim()) return
  const first = text.value.trimStart()
  const form = first.startsWith('{') ? 'jsonl' : 'text'
  if ((await marking.takeIn(form, text.value)) && !marking.left.length) leave()
}
async function takeFile(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  const ending = /\.(\w+)$/.exec(file.name)?.[1]?.toLowerCase()
  if (ending === 'zip') await marking.takeIn('zip', await inBase64(file))
  else
    await marking.takeIn(
      ending === 'csv' ? 'csv' : ending === 'jsonl' || ending === 'json' ? 'jsonl' : 'text',
      await textOf(file),
    )
  input.value = ''
}
function leave(): void {
  text.value = ''
  emit('done')
}
</script>

<template>
  <section class="take" aria-label="Take in">
    <p>
      Names of the class on lines of their own, numbered problems below, the lines of each. Or a file: a table with
      student, item, line (.csv), JSON lines, chains in an archive (.zip).
    </p>
    <textarea
      ref="area"
      v-model="text"
      rows="9"
      spellcheck="false"
      aria-label="What the class wrote"
      :placeholder="EXAMPLE"
      @keydown.ctrl.enter.prevent="takeText"
      @keydown.esc="leave"
    />
    <p class="row">
      <el-button type="primary" :loading="marking.request.busy.value" @click="takeText">Take it in</el-button>{{ ' '
      }}<span class="muted">Ctrl+Enter</span>
      <label>A file <input type="file" accept=".txt,.csv,.jsonl,.json,.zip" @change="takeFile" /></label>
    </p>
    <div v-if="marking.left.length" class="left" role="status">
      <p>Not taken; the rest is here:</p>
      <p v-for="(row, k) in marking.left.slice(0, 40)" :key="k">
        row {{ row.place }} <code>{{ row.text }}</code> {{ row.why }}
      </p>
    </div>
  </section>
</template>

<style scoped>
.take {
  border-left: 3px solid var(--settles);
  padding: 4px 14px 10px;
  margin-bottom: 14px;
}
textarea {
  width: 100%;
  max-width: 760px;
  font-family: var(--mono);
  font-size: 15px;
  padding: 10px 12px;
  border: 1px solid #cfc8b8;
  border-radius: 8px;
  background: var(--sheet);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
}
.left {
  border-left: 3px solid var(--breaks);
  padding: 2px 12px;
  margin-top: 8px;
}
</style>
