<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { useMarking } from './store'
import { useClasses } from './classes'
import { useRegional } from '@/lib/regional'

/** What a set counts by: late papers, grades, a first attempt of which the better counts; and what is blank. */
const marking = useMarking()
const classes = useClasses()
const { day } = useRegional(() => marking.set?.in_force)
const late = ref(marking.set?.late_percent ?? 0)
const grades = ref((marking.set?.boundaries ?? []).map((each) => `${each.percent} ${each.grade}`).join('\n'))
const again = ref(marking.set?.again_of ?? 0)
const trouble = ref('')
onMounted(() => marking.set && classes.show(marking.set.school_class))
const earlier = computed(() =>
  (classes.open?.sets ?? []).filter((each) => each.id !== marking.set?.id && each.day <= (marking.set?.day ?? '')),
)

/** Lines such as `75 good`; null where one is none. */
function boundaries(): { grade: string; percent: number }[] | null {
  const rows = grades.value
    .split('\n')
    .map((row) => row.trim())
    .filter(Boolean)
  const found = rows.map((row) => /^(\d+(?:[.,]\d+)?)\s*%?\s+(.+)$/.exec(row))
  const wrong = rows.find((_, k) => !found[k])
  trouble.value = wrong ? `“${wrong}” is no percent with a grade behind it, as in 75 good.` : ''
  return wrong ? null : found.map((each) => ({ percent: Number(each![1]!.replace(',', '.')), grade: each![2]!.trim() }))
}
async function keep(): Promise<void> {
  const found = boundaries()
  if (found) await marking.changeSet({ late_percent: late.value, boundaries: found, again_of: again.value })
}
</script>

<template>
  <form class="counts" aria-label="What this set counts by" @submit.prevent="keep">
    <p class="row">
      <label
        >A late paper loses
        <input v-model.number="late" type="number" min="0" max="100" aria-label="Percent that a late paper loses" />
        %</label
      >
      <label
        >second attempt of
        <select v-model="again" aria-label="First attempt">
          <option :value="0">nothing</option>
          <option v-for="set in earlier" :key="set.id" :value="set.id">{{ set.title }}, {{ day(set.day) }}</option>
        </select></label
      >
    </p>
    <label
      >Grades, a line each: from how many percent on
      <textarea v-model="grades" rows="4" placeholder="75 good&#10;50 pass" aria-label="Grades" spellcheck="false" />
    </label>
    <p v-if="trouble" role="alert">{{ trouble }}</p>
    <p class="row">
      <el-button native-type="submit" type="primary" :loading="marking.request.busy.value">Count by this</el-button>
      <button type="button" class="plain-button" @click="marking.fillBlanks()">
        what is missing on papers that were handed in is blank
      </button>
    </p>
  </form>
</template>

<style scoped>
.counts {
  border-left: 3px solid var(--settles);
  padding: 4px 14px;
  margin-bottom: 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 18px;
  align-items: center;
}
input {
  width: 64px;
}
textarea {
  display: block;
  width: 260px;
  padding: 6px 9px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
</style>
