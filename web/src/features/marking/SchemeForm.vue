<script setup lang="ts">
import { computed, onMounted, reactive, ref, watch } from 'vue'
import { useMarking } from './store'
import { api, unwrap, type Schema } from '@/api/client'
import { SCHEMES } from '@/lib/marking'

/** How an item is marked: the kind of scheme, what it is worth, its points, and what is a matter of judgement. */
const props = defineProps<{ item: number }>()
const emit = defineEmits<{ done: [] }>()
const marking = useMarking()
const item = computed(() => marking.table.items.find((each) => each.id === props.item) ?? null)
const wish = reactive<{ scheme: Schema['SchemeIn'] | null }>({ scheme: null })
// once for each item: the table is fetched anew while it is verified, and what is being typed here stays
watch(
  () => props.item,
  () => (wish.scheme = item.value ? { ...item.value.scheme, points: [...(item.value.scheme.points ?? [])] } : null),
  { immediate: true },
)
const POINTS = ['method', 'accuracy', 'check', 'form', 'excluded'] as const
const count = (kind: string): number => wish.scheme?.points?.filter((each) => each === kind).length ?? 0
function setCount(kind: (typeof POINTS)[number], number: number): void {
  if (!wish.scheme) return
  wish.scheme.points = POINTS.flatMap((each) =>
    Array.from({ length: each === kind ? number : count(each) }, () => each),
  )
  wish.scheme.total = wish.scheme.points.length
}
const own = ref<Schema['OwnSchemeOut'][]>([])
const used = ref<Schema['OwnSchemeOut'] | null>(null)
const name = ref('')
onMounted(() =>
  marking.request.run(
    () => unwrap(api.GET('/api/schemes')),
    (found) => (own.value = found),
  ),
)
function use(id: number): void {
  used.value = own.value.find((each) => each.id === id) ?? null
  if (used.value) wish.scheme = { ...used.value.scheme, points: [...(used.value.scheme.points ?? [])] }
}
async function remember(): Promise<void> {
  const scheme = wish.scheme
  if (
    scheme &&
    (await marking.request.run(
      () => unwrap(api.PUT('/api/schemes', { body: { name: name.value, scheme } })),
      (found) => (own.value = found),
    ))
  )
    name.value = ''
}
async function forget(): Promise<void> {
  const id = used.value?.id
  if (
    id === undefined ||
    !(await marking.request.run(() =>
      unwrap(api.DELETE('/api/schemes/{scheme_id}', { params: { path: { scheme_id: id } } })),
    ))
  )
    return
  own.value = own.value.filter((each) => each.id !== id)
  used.value = null
}
async function keepEverywhere(): Promise<void> {
  const scheme = wish.scheme
  if (!scheme) return
  for (const each of [...marking.table.items]) if (!(await marking.changeScheme(each.id, scheme))) return
  emit('done')
}
async function keep(): Promise<void> {
  if (wish.scheme && (await marking.changeScheme(props.item, wish.scheme))) emit('done')
}
</script>

<template>
  <form
    v-if="item && wish.scheme"
    class="scheme"
    :aria-label="`Scheme of number ${item.number}`"
    @submit.prevent="keep"
    @keydown.esc="emit('done')"
  >
    <h2>Number {{ item.number }} is marked by</h2>
    <label v-for="[kind, words] in SCHEMES" :key="kind"
      ><input v-model="wish.scheme.kind" type="radio" name="scheme" :value="kind" /> {{ words }}</label
    >
    <p v-if="wish.scheme.kind === 'points'" class="row">
      <label v-for="kind in POINTS" :key="kind"
        >{{ kind }}
        <input
          type="number"
          min="0"
          max="6"
          :value="count(kind)"
          @change="setCount(kind, Number(($event.target as HTMLInputElement).value))"
      /></label>
    </p>
    <p class="row">
      <label>worth <input v-model.number="wish.scheme.total" type="number" min="0.5" max="100" step="0.5" /></label>
    </p>
    <p class="row">
      <label
        >a right answer without working earns
        <select v-model="wish.scheme.answer_alone">
          <option value="all">everything</option>
          <option value="accuracy">the accuracy</option>
          <option value="none">nothing</option>
        </select></label
      >
      <label
        >a right answer after a broken line
        <select v-model="wish.scheme.broken_right">
          <option value="keeps">keeps the accuracy</option>
          <option value="loses">loses it</option>
        </select></label
      >
      <label
        >a line right by luck
        <select v-model="wish.scheme.lucky">
          <option value="keeps">keeps the accuracy</option>
          <option value="loses">loses it</option>
        </select></label
      >
      <label
        >rounded to
        <select v-model="wish.scheme.rounding">
          <option value="half">halves</option>
          <option value="whole">whole marks</option>
        </select></label
      >
    </p>
    <p class="row">
      <el-button native-type="submit" type="primary">Propose anew</el-button>{{ ' '
      }}<button type="button" class="plain-button" @click="keepEverywhere">for all items</button>{{ ' '
      }}<span class="muted">Marks that are confirmed stay.</span>
    </p>
    <p class="row">
      <label v-if="own.length"
        >A scheme of yours
        <select aria-label="A scheme of yours" @change="use(Number(($event.target as HTMLSelectElement).value))">
          <option value="0">…</option>
          <option v-for="each in own" :key="each.id" :value="each.id">{{ each.name }}</option>
        </select></label
      >
      <label
        >keep this one as <input v-model="name" class="name" maxlength="60" aria-label="Name of the scheme"
      /></label>
      <button type="button" class="plain-button" :disabled="!name.trim()" @click="remember">keep it</button>
      <button v-if="used" type="button" class="plain-button" @click="forget">forget “{{ used.name }}”</button>
    </p>
  </form>
</template>

<style scoped>
.scheme {
  border-left: 3px solid var(--settles);
  padding: 4px 14px;
  margin-top: 12px;
}
h2 {
  font-size: 15px;
}
label {
  display: block;
  padding: 2px 0;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  align-items: center;
}
.row input {
  width: 62px;
}
.row .name {
  width: 180px;
}
</style>
