<script setup lang="ts">
import { ref, watch } from 'vue'
import TroubleNote from '@/components/TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'
import { CONVENTIONS, positionOf, withPosition, type Convention, type Conventions } from '@/lib/conventions'

/** The conventions of the sheet: what counts as finished, and how lines are read and written. */
const props = defineProps<{
  open: boolean
  chosen: Conventions
  save: (chosen: Conventions) => Promise<void>
}>()
const emit = defineEmits<{ close: [] }>()

const draft = ref<Conventions>({})
const request = useRequest('The server does not answer; nothing was changed.')

watch(
  () => props.open,
  (now) => {
    if (now) draft.value = { ...props.chosen }
    request.clear()
  },
  { immediate: true },
)

async function choose(convention: Convention, value: string): Promise<void> {
  draft.value = withPosition(draft.value, convention, value)
  await request.run(() => props.save(draft.value))
}
</script>

<template>
  <el-drawer :model-value="open" title="Conventions of this sheet" size="400px" append-to-body @close="emit('close')">
    <p class="muted lead">
      They decide what is accepted as finished. All problems of the sheet are judged again at once.
    </p>
    <fieldset v-for="convention in CONVENTIONS" :key="convention.key">
      <legend>{{ convention.label }}</legend>
      <label v-for="each in convention.positions" :key="each.value">
        <input
          type="radio"
          :name="convention.key"
          :value="each.value"
          :checked="positionOf(draft, convention) === each.value"
          @change="choose(convention, each.value)"
        />
        {{ each.label }}
      </label>
    </fieldset>
    <TroubleNote :request="request" />
  </el-drawer>
</template>

<style scoped>
.lead {
  margin-bottom: 14px;
  font-size: 14px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--hairline);
  margin: 0;
  padding: 10px 0 12px;
}
legend {
  float: left;
  width: 100%;
  font-weight: 700;
  padding: 0 0 4px;
}
label {
  display: block;
  clear: both;
  padding: 2px 0;
  cursor: pointer;
}
input {
  accent-color: var(--settles);
  margin-right: 6px;
}
</style>
