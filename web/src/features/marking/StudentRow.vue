<script setup lang="ts">
import { ref } from 'vue'
import { useClasses } from './classes'
import type { Schema } from '@/api/client'

/** A student of a class: the data, another name or number, another class, erased. */
const props = defineProps<{ student: Schema['StudentOut'] }>()
const store = useClasses()
const changing = ref(false)
const name = ref('')
const number = ref('')
const into = ref<number | null>(null)
const erasing = ref(false)

function begin(): void {
  changing.value = !changing.value
  name.value = props.student.name
  number.value = props.student.number
  into.value = null
}
async function change(): Promise<void> {
  const wanted = { name: name.value.trim(), number: number.value.trim(), ...(into.value ? { into: into.value } : {}) }
  if (await store.changeStudent(props.student.id, wanted)) changing.value = false
}
async function erase(): Promise<void> {
  if (!erasing.value) erasing.value = true
  else if (await store.erase(props.student.id)) erasing.value = false
}
</script>

<template>
  <li>
    {{ student.name }} <small class="muted">{{ student.number }}</small>
    <button class="plain-button" :aria-expanded="changing" :aria-label="`change ${student.name}`" @click="begin">
      change
    </button>
    <a :href="`/api/students/${student.id}?form=pdf`" :aria-label="`all data of ${student.name}, on paper`">all data</a
    >{{ ' ' }}<a :href="`/api/students/${student.id}`" :aria-label="`all data of ${student.name}, as JSON`">JSON</a>
    <button class="plain-button" @click="erase">
      {{ erasing ? 'erase with every paper and mark: once more' : 'erase' }}
    </button>
    <small v-if="erasing" class="muted" role="status"
      >Backups hold a copy for as long as they are kept, the nightly ones for two weeks; where one is brought back,
      {{ student.name }} is erased from it again.</small
    >
    <form v-if="changing" class="change" :aria-label="`Change ${student.name}`" @submit.prevent="change">
      <label>Name <input v-model="name" maxlength="80" required /></label>
      <label>number of the school <input v-model="number" maxlength="30" /></label>
      <label
        >class
        <select v-model="into">
          <option :value="null">stays in {{ store.open?.name }}</option>
          <template v-for="each in store.classes ?? []" :key="each.id">
            <option v-if="each.id !== store.open?.id" :value="each.id">goes to {{ each.name }}</option>
          </template>
        </select></label
      >
      <el-button native-type="submit" :disabled="!name.trim()">Change it</el-button>
      <small class="muted">What was written stays in the sets where it was written.</small>
    </form>
  </li>
</template>

<style scoped>
a {
  color: var(--settles);
}
li > .plain-button {
  color: var(--muted);
}
.change input,
.change select {
  padding: 5px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.change {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 6px 0 10px 14px;
}
</style>
