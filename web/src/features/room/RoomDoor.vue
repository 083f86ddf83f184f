<script setup lang="ts">
import { ref } from 'vue'
import { useRoom } from './store'
import TroubleNote from '@/components/TroubleNote.vue'

/** The door of a practice room: its code, the student's name as the class has it, a secret of their own. */
const store = useRoom()
const [code, name, secret] = [ref(''), ref(''), ref('')]
async function comeIn(): Promise<void> {
  if (await store.comeIn(code.value, name.value, secret.value)) secret.value = ''
}
</script>

<template>
  <form class="door" aria-label="Come in" @submit.prevent="comeIn">
    <h1>Come in</h1>
    <label
      >Code of the room <input v-model="code" autocomplete="off" autocapitalize="characters" maxlength="12" required
    /></label>
    <label>Your name, as your teacher has it <input v-model="name" autocomplete="off" maxlength="80" required /></label>
    <label
      >A secret of your own <input v-model="secret" type="password" autocomplete="off" maxlength="60" required
    /></label>
    <p class="muted">The first time you choose it: at least four letters or digits. Nobody else sees it.</p>
    <TroubleNote :request="store.request" />
    <p v-if="store.refused" role="alert">{{ store.refused }}</p>
    <el-button native-type="submit" type="primary" :loading="store.request.busy.value">Come in</el-button>
  </form>
</template>

<style scoped>
.door {
  display: grid;
  gap: 12px;
  max-width: 380px;
  margin: 8vh auto 0;
}
.door label {
  display: grid;
  gap: 4px;
}
.door input {
  padding: 9px 11px;
  font-size: 17px;
  border: 1px solid #cfc8b8;
  border-radius: 7px;
  background: var(--sheet);
}
h1 {
  font-size: 22px;
  margin: 0;
}
</style>
