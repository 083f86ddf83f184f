<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { api, unwrap, type Schema } from '@/api/client'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'

/** What the class has been taught, and the teacher's own words for rules and methods. */
const props = defineProps<{ open: boolean; untaught: string[]; save: (untaught: string[]) => Promise<void> }>()
const emit = defineEmits<{ close: [] }>()

type Entry = Schema['EntryOut']
const entries = ref<Entry[]>([])
const words = ref<Record<string, { name: string; text: string }>>({})
const worded = ref<string | null>(null)
const filter = ref('')
const request = useRequest('The server does not answer; nothing was changed.')
const GROUPS: [Entry['kind'], string][] = [
  ['method', 'Methods'],
  ['number', 'Kinds of number'],
  ['rule', 'Rules'],
  ['slip', 'Slips'],
]

watch(
  () => props.open,
  async (now) => {
    if (!now) return
    await request.run(async () => {
      entries.value = (await unwrap(api.GET('/api/catalogue'))).entries
      words.value = (await unwrap(api.GET('/api/account/words'))).words as typeof words.value
    })
  },
)

const shown = computed(() => {
  const wanted = filter.value.toLowerCase()
  return entries.value.filter((entry) =>
    `${entry.name} ${entry.text} ${words.value[entry.id]?.name ?? ''}`.toLowerCase().includes(wanted),
  )
})

function toggle(id: string): Promise<boolean> {
  const next = props.untaught.includes(id) ? props.untaught.filter((each) => each !== id) : [...props.untaught, id]
  return request.run(() => props.save(next))
}

function wordsOf(id: string): { name: string; text: string } {
  return (words.value[id] ??= { name: '', text: '' })
}

function saveWords(): Promise<boolean> {
  return request.run(async () => {
    words.value = (await unwrap(api.PUT('/api/account/words', { body: { words: words.value } })))
      .words as typeof words.value
  })
}
</script>

<template>
  <el-drawer :model-value="open" title="What the class knows" size="460px" append-to-body @close="emit('close')">
    <p class="muted lead">
      Worked solutions and next steps stay within what is ticked; what a problem needs beyond it is said. Your own words
      for a rule or a method are used wherever it is shown.
    </p>
    <input v-model="filter" class="filter" placeholder="find a rule or method" aria-label="Find a rule or method" />
    <TroubleNote :request="request" />
    <section v-for="[kind, title] in GROUPS" :key="kind">
      <h3>{{ title }}</h3>
      <div v-for="entry in shown.filter((each) => each.kind === kind)" :key="entry.id" class="entry">
        <label :title="entry.text">
          <input
            v-if="kind !== 'slip'"
            type="checkbox"
            :checked="!untaught.includes(entry.id)"
            @change="toggle(entry.id)"
          />
          {{ words[entry.id]?.name || entry.name }}
        </label>
        <button
          v-if="kind !== 'number'"
          class="plain-button small"
          :aria-expanded="worded === entry.id"
          @click="worded = worded === entry.id ? null : entry.id"
        >
          own words
        </button>
        <form v-if="worded === entry.id" @submit.prevent="saveWords">
          <label>called <input v-model="wordsOf(entry.id).name" maxlength="120" :placeholder="entry.name" /></label>
          <label
            >said <textarea v-model="wordsOf(entry.id).text" rows="2" maxlength="600" :placeholder="entry.text" />
          </label>
          <el-button size="small" native-type="submit">Keep these words</el-button>
        </form>
      </div>
    </section>
  </el-drawer>
</template>

<style scoped>
.lead {
  font-size: 14px;
  margin-bottom: 10px;
}
.filter {
  width: 100%;
  padding: 6px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
}
h3 {
  margin: 16px 0 4px;
  font-size: 15px;
}
.entry {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  border-top: 1px solid var(--hairline);
  padding: 3px 0;
}
.entry > label {
  cursor: pointer;
}
input[type='checkbox'] {
  accent-color: var(--settles);
  margin-right: 6px;
}
.small {
  font-size: 13px;
  color: var(--muted);
}
form {
  grid-column: 1 / -1;
  display: grid;
  gap: 6px;
  padding: 6px 0 10px 24px;
}
form label {
  display: grid;
  grid-template-columns: 56px 1fr;
  color: var(--muted);
}
form input,
textarea {
  padding: 4px 7px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  color: var(--ink);
}
</style>
