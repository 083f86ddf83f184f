<script setup lang="ts">
/** The frame of an answer: Enter gives it, a key chooses, and it is said that it is kept. */
const props = defineProps<{ number: number; isNew: boolean; closed: boolean; kept: boolean; keys?: string }>()
const emit = defineEmits<{ give: []; choose: [place: number] }>()

/** Enter gives the answer; one of the keys chooses its place. */
function byKey(event: KeyboardEvent): void {
  const typing = (event.target as HTMLElement).matches('input:not([type=radio])')
  if (event.ctrlKey || event.metaKey || event.altKey || typing) return
  const place = event.key.length === 1 ? (props.keys ?? '').indexOf(event.key.toUpperCase()) : -1
  if (event.key === 'Enter') emit('give')
  else if (place >= 0) emit('choose', place)
  else return
  event.preventDefault()
}
</script>

<template>
  <form class="answer" :aria-label="`Answer to ${number}`" @submit.prevent="emit('give')" @keydown="byKey">
    <slot />
    <p v-if="!closed">
      <el-button class="give" native-type="submit" type="primary" :disabled="!isNew">This is my answer</el-button>
    </p>
    <p v-if="kept && !isNew" class="muted">kept</p>
  </form>
</template>

<style scoped>
.give {
  min-height: 40px;
}
</style>
