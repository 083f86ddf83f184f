<script setup lang="ts">
import { GROUPS, SHEET } from '@/lib/shortcuts'

/** All keys of the desk, and the notation, on one panel. */
defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()

const NOTATION: [string, string][] = [
  ['(x+1)/(x-4)', 'a fraction; / takes its two neighbours'],
  ['x^2   2^(3x)', 'powers'],
  ['√20  sqrt(x+5)  root(4, x)', 'roots'],
  ['|x - 3|', 'absolute value'],
  ['2 1/4', 'a mixed number'],
  ['6 ÷ 2 · 3', 'from the left'],
  ['x = 2 +- 3', '±'],
  ['x = 3 or x = -2', 'solutions; also x = 3, -2 or {3, -2}'],
  ['no solution', 'and: all real numbers except 0'],
  ['x ∈ ℝ, x ≠ 2', 'and: D = ℝ ∖ {2}, S = {2, 3}, x ∈ (2, ∞)'],
  ['x != 4', 'an excluded value'],
  ['| -3x', 'at the end of a line: the move on both sides'],
  ['# because …', 'a remark'],
  ['check x = 6: 4 = 4', 'a check in the given'],
  ['aside: 5 - a = -(a - 5)', 'side work'],
  ['\\frac{x}{2}', 'LaTeX is read as well'],
]
</script>

<template>
  <el-dialog :model-value="open" title="Keys and notation" width="960" top="3vh" append-to-body @close="emit('close')">
    <div class="columns">
      <div>
        <section v-for="group in GROUPS.filter((each) => each !== SHEET)" :key="group.name">
          <h3>{{ group.name }}</h3>
          <dl>
            <template v-for="row in group.rows" :key="row.shown"
              ><dt>
                <kbd>{{ row.shown }}</kbd>
              </dt>
              <dd>{{ row.what }}</dd></template
            >
          </dl>
        </section>
      </div>
      <div>
        <section>
          <h3>How lines are typed</h3>
          <dl>
            <template v-for="[typed, what] in NOTATION" :key="typed"
              ><dt>
                <code>{{ typed }}</code>
              </dt>
              <dd>{{ what }}</dd></template
            >
          </dl>
        </section>
        <section>
          <h3>{{ SHEET.name }}</h3>
          <dl>
            <template v-for="row in SHEET.rows" :key="row.shown"
              ><dt>
                <kbd>{{ row.shown }}</kbd>
              </dt>
              <dd>{{ row.what }}</dd></template
            >
          </dl>
        </section>
      </div>
    </div>
  </el-dialog>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1fr 1.15fr;
  gap: 28px;
}
h3 {
  font-size: 13px;
  color: var(--muted);
  font-weight: 400;
  margin: 0 0 6px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 5px 12px;
  margin: 0 0 14px;
  font-size: 14px;
}
dd {
  margin: 0;
}
code {
  font: 13px var(--mono);
}
@media (max-width: 700px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
</style>
