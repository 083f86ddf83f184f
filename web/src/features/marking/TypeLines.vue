<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useMarking } from './store'

/** The lines of one working, typed; what others wrote for the same item is offered as soon as it begins alike. */
const text = defineModel<string>({ required: true })
const props = defineProps<{ who: string; item: number; number: number }>()
const emit = defineEmits<{ keep: [next: 'down' | 'stay']; leave: [] }>()
const marking = useMarking()
const field = ref<HTMLTextAreaElement | null>(null)
const MOST = 4
const plain = (told: string): string => told.replace(/[ \t]/g, '').replace(/\n+$/, '')

onMounted(() => field.value?.focus())
watch(
  () => props.item,
  (item) => void marking.loadWritten(item),
  { immediate: true },
)
const offers = computed(() => {
  const begun = plain(text.value)
  return begun
    ? marking.written
        .filter((each) => plain(each.lines.join('\n')).startsWith(begun) && plain(each.lines.join('\n')) !== begun)
        .slice(0, MOST)
    : []
})
function take(k: number): void {
  const offer = offers.value[k]
  if (offer) text.value = offer.lines.join('\n')
  field.value?.focus()
}
function onKey(event: KeyboardEvent): void {
  if (event.key === 'Tab' && !event.shiftKey && !event.ctrlKey && !event.altKey) emit('keep', 'down')
  else if (event.key === 'Enter' && event.ctrlKey) emit('keep', 'stay')
  else if (event.key === 'Escape') emit('leave')
  else if (event.altKey && /^[1-9]$/.test(event.key)) take(Number(event.key) - 1)
  else return
  event.preventDefault()
}
</script>

<template>
  <section class="typing" aria-label="Lines as written">
    <p>{{ who }}, number {{ number }}</p>
    <textarea
      ref="field"
      v-model="text"
      rows="8"
      spellcheck="false"
      aria-label="Lines, one below the other"
      @keydown="onKey"
    />
    <ul v-if="offers.length" aria-label="Written before">
      <li v-for="(offer, k) in offers" :key="offer.lines.join('\n')">
        <button class="plain-button" @click="take(k)">
          <kbd>Alt {{ k + 1 }}</kbd
          >{{ ' ' }}<code>{{ offer.lines.join('  →  ') }}</code
          >{{ ' ' }}<small class="muted">{{ offer.count }} ×</small>
        </button>
      </li>
    </ul>
    <p class="muted">
      <kbd>Tab</kbd> keeps it and goes to the next student, <kbd>Ctrl Enter</kbd> keeps it, <kbd>Esc</kbd> leaves it;
      what others wrote is offered as it begins alike
    </p>
  </section>
</template>

<style scoped>
textarea {
  width: 100%;
  font-family: var(--mono);
  font-size: 16px;
  padding: 10px 12px;
  border: 1px solid #cfc8b8;
  border-radius: 8px;
  background: var(--sheet);
}
ul {
  list-style: none;
  margin: 4px 0;
  padding: 0;
}
li button {
  text-align: left;
}
code {
  white-space: normal;
}
</style>
