<script setup lang="ts">
import { onBeforeUnmount, onMounted } from 'vue'
import { useOutbox } from '@/lib/outbox'

/** How much has not reached the server yet, at one place of every screen; who leaves meanwhile is asked. */
const outbox = useOutbox()

const again = (): void => void outbox.send()
/** Nothing is lost by leaving, but it waits for the next time: the browser asks in its own words. */
function guard(event: BeforeUnloadEvent): void {
  if (outbox.entries.length) event.preventDefault()
}
onMounted(() => {
  window.addEventListener('online', again)
  window.addEventListener('beforeunload', guard)
})
onBeforeUnmount(() => {
  window.removeEventListener('online', again)
  window.removeEventListener('beforeunload', guard)
})
</script>

<template>
  <div class="unsent" role="status">
    <p v-if="outbox.offline && outbox.entries.length">
      {{ outbox.entries.length }} not sent yet: there is no connection. It is kept here and goes out by itself.
      <button class="plain-button" @click="again">send now</button>
    </p>
    <p v-for="(words, k) in outbox.refused" :key="k">
      Something that waited here was refused: {{ words }}
      <button class="plain-button" @click="outbox.refused.splice(k, 1)">noted</button>
    </p>
  </div>
</template>

<style scoped>
.unsent {
  position: fixed;
  right: 14px;
  bottom: 12px;
  z-index: 40;
  max-width: min(420px, calc(100vw - 28px));
}
.unsent p {
  margin: 6px 0 0;
  padding: 8px 14px;
  border: 1px solid var(--widens);
  border-radius: 8px;
  background: var(--sheet);
}
</style>
