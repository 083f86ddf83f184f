<script setup lang="ts">
import { computed } from 'vue'
import type { SideWork } from '@/api/client'
import PlainMath from './PlainMath.vue'
import SideFigure from './SideFigure.vue'

/** Side work as one would put it on paper beside the line: a search, a box, a tree, a ladder. */
const props = defineProps<{ work: SideWork }>()

const TITLES: Record<SideWork['kind'], string> = {
  'product-sum': 'Two numbers',
  'area-grid': 'Area grid',
  'factor-tree': 'By primes',
  'square-test': 'Perfect square?',
  ladder: 'Do and undo',
  balance: 'Both sides alike',
  counters: 'Counters',
  'slide-divide': 'Slide and divide',
  lcd: 'What each lacks',
  box: 'Half, squared',
  synthetic: 'Synthetic division',
  'long-division': 'Division',
  candidate: 'Put in',
  formula: 'Read off',
}
const title = computed(() => TITLES[props.work.kind])
const isPair = (a: number, b: number): boolean =>
  props.work.kind === 'product-sum' && !!props.work.pair && a === props.work.pair[0] && b === props.work.pair[1]
</script>

<template>
  <figure class="work" :aria-label="title">
    <figcaption>{{ title }}</figcaption>

    <div v-if="work.kind === 'product-sum'" class="search">
      <svg v-if="work.pair" viewBox="0 0 120 92" class="diamond" aria-hidden="true">
        <path d="M60 4 116 46 60 88 4 46z M32 25 88 67 M88 25 32 67" />
        <text x="60" y="24">{{ work.product }}</text>
        <text x="60" y="82">{{ work.sum }}</text>
        <text x="26" y="51" class="found">{{ work.pair[0] }}</text>
        <text x="94" y="51" class="found">{{ work.pair[1] }}</text>
      </svg>
      <table>
        <thead>
          <tr>
            <th>product {{ work.product }}</th>
            <th>sum {{ work.sum }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="[a, b, sum] in work.tried" :key="`${a} ${b}`" :class="{ found: isPair(a!, b!) }">
            <td>{{ a }} · {{ b }}</td>
            <td>{{ sum }}</td>
          </tr>
          <tr v-if="!work.pair">
            <td colspan="2">none fits</td>
          </tr>
        </tbody>
      </table>
    </div>

    <table v-else-if="work.kind === 'area-grid'" class="grid">
      <tbody>
        <tr>
          <td />
          <th v-for="a in work.across" :key="a"><PlainMath :text="a" /></th>
        </tr>
        <tr v-for="(row, k) in work.areas" :key="k">
          <th><PlainMath :text="work.down[k] ?? ''" /></th>
          <td v-for="(cell, j) in row" :key="j" class="area"><PlainMath :text="cell" /></td>
        </tr>
      </tbody>
    </table>

    <SideFigure
      v-else-if="work.kind === 'factor-tree' || work.kind === 'balance' || work.kind === 'counters'"
      :work="work"
    />

    <dl v-else-if="work.kind === 'square-test'" class="facts">
      <dt>first term</dt>
      <dd><PlainMath :text="`(${work.a})^2`" /> ✓</dd>
      <dt>last term</dt>
      <dd><PlainMath :text="`${work.b}^2`" /> ✓</dd>
      <dt>middle</dt>
      <dd>
        <PlainMath :text="`2·${work.a}·${work.b} = ${work.needed}`" /> {{ work.fits ? '✓' : '✗' }}
        <template v-if="!work.fits">, but here <PlainMath :text="work.middle" /></template>
      </dd>
    </dl>

    <div v-else-if="work.kind === 'ladder'" class="ladder">
      <ol aria-label="Done to the unknown">
        <li>{{ work.unknown }}</li>
        <li v-for="step in work.do" :key="step">↓ <PlainMath :text="step" /></li>
      </ol>
      <ol class="up" aria-label="Undone">
        <li v-for="step in work.undo" :key="step">↑ <PlainMath :text="step" /></li>
      </ol>
    </div>

    <dl v-else-if="work.kind === 'slide-divide'" class="facts">
      <dt>slid</dt>
      <dd><PlainMath :text="work.slid" /></dd>
      <dt>factors</dt>
      <dd><PlainMath v-for="f in work.factors" :key="f" :text="`(${f})`" /></dd>
      <dt>÷ {{ work.a }}</dt>
      <dd><PlainMath v-for="f in work.divided" :key="f" :text="`(${f})`" /></dd>
      <dt>in front</dt>
      <dd><PlainMath v-for="f in work.result" :key="f" :text="`(${f})`" /></dd>
    </dl>

    <table v-else-if="work.kind === 'lcd' && work.rows.length">
      <thead>
        <tr>
          <th>denominator</th>
          <th>lacks</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[bottom, lacks] in work.rows" :key="bottom">
          <td><PlainMath :text="bottom!" /></td>
          <td><PlainMath :text="lacks!" /></td>
        </tr>
      </tbody>
      <tfoot>
        <tr>
          <th>LCD</th>
          <td><PlainMath :text="work.lcd" /></td>
        </tr>
      </tfoot>
    </table>
    <p v-else-if="work.kind === 'lcd'">
      {{ work.denominators.join(', ') }} all divide <b>{{ work.lcd }}</b>
    </p>

    <p v-else-if="work.kind === 'box'" class="boxed">
      <span><PlainMath :text="work.of" /> ÷ 2 = <PlainMath :text="work.half" /></span>
      <span class="filled"><PlainMath :text="`(${work.half})^2 = ${work.square}`" /></span>
      <span class="muted">on both sides</span>
    </p>

    <table v-else-if="work.kind === 'synthetic'" class="synthetic">
      <tbody>
        <tr>
          <th>{{ work.root }}</th>
          <td v-for="(c, k) in work.top" :key="k">{{ c }}</td>
        </tr>
        <tr class="carried">
          <th />
          <td />
          <td v-for="(c, k) in work.carried" :key="k">{{ c }}</td>
        </tr>
        <tr class="bottom">
          <th />
          <td v-for="(c, k) in work.bottom" :key="k">{{ c }}</td>
        </tr>
      </tbody>
    </table>

    <div v-else-if="work.kind === 'long-division'" class="division">
      <p><PlainMath :text="`(${work.dividend}) ÷ (${work.divisor})`" /></p>
      <template v-for="step in work.rows" :key="step.term">
        <p>
          take <b><PlainMath :text="step.term" /></b>: subtract <PlainMath :text="step.subtract" />
        </p>
        <p class="rest"><PlainMath :text="step.rest" /></p>
      </template>
    </div>

    <p v-else-if="work.kind === 'candidate'"><PlainMath :text="work.claim" /> {{ work.holds ? '✓' : '✗' }}</p>

    <p v-else-if="work.kind === 'formula'" class="boxed">
      <span v-for="key in ['a', 'b', 'c'] as const" :key="key">{{ key }} = <PlainMath :text="work[key]" /></span>
    </p>
  </figure>
</template>

<style scoped>
.work {
  margin: 12px 0 0;
  padding: 10px 12px;
  border: 1px solid var(--hairline);
  border-radius: 8px;
  background: var(--sheet);
  font-size: 0.95em;
  overflow-x: auto;
}
figcaption {
  color: var(--muted);
  font-size: 0.86em;
  margin-bottom: 6px;
}
.search {
  display: flex;
  gap: 16px;
  align-items: flex-start;
}
.diamond {
  width: 120px;
  flex: none;
}
.diamond path {
  fill: none;
  stroke: var(--muted);
  stroke-width: 1.5;
}
.diamond text {
  text-anchor: middle;
  fill: currentcolor;
  font-size: 15px;
}
.diamond .found,
tr.found {
  fill: var(--holds);
  color: var(--holds);
  font-weight: 700;
}
table {
  border-collapse: collapse;
}
th {
  font-weight: 400;
  color: var(--muted);
  text-align: left;
  padding: 2px 14px 2px 0;
}
td {
  padding: 2px 14px 2px 0;
}
.grid th {
  text-align: center;
  padding: 3px 8px;
  color: inherit;
  font-weight: 700;
}
.grid .area {
  border: 1.5px solid var(--muted);
  padding: 12px 16px;
  text-align: center;
}
tfoot td,
tfoot th {
  border-top: 1px solid var(--hairline);
  padding-top: 4px;
}
.facts {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 12px;
  margin: 0;
}
.facts dt {
  color: var(--muted);
}
.facts dd {
  margin: 0;
}
.ladder {
  display: flex;
  gap: 28px;
}
.ladder ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.ladder .up {
  display: flex;
  flex-direction: column-reverse;
  color: var(--holds);
}
.boxed {
  display: flex;
  gap: 14px;
  align-items: center;
  flex-wrap: wrap;
}
.filled {
  border: 1.5px solid var(--holds);
  border-radius: 4px;
  padding: 4px 8px;
}
.synthetic td,
.synthetic th {
  padding: 3px 10px;
  text-align: right;
}
.synthetic th {
  border-right: 1.5px solid var(--muted);
  color: inherit;
}
.synthetic .bottom td {
  border-top: 1.5px solid var(--muted);
}
.division .rest {
  padding-left: 18px;
}
</style>
