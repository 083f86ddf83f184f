<script setup lang="ts">
import { computed } from 'vue'
import type { SideWork } from '@/api/client'
import PlainMath from './PlainMath.vue'

/** The figures that are drawn: a factor tree, a balance that tips when one side only is changed, signed counters. */
const props = defineProps<{ work: Extract<SideWork, { kind: 'factor-tree' | 'balance' | 'counters' }> }>()

const primes = computed(() => (props.work.kind === 'factor-tree' ? props.work.primes : []))
/** The numbers that are left on the way down the tree. */
const trunk = computed(() => {
  let rest = props.work.kind === 'factor-tree' ? props.work.number : 1
  return primes.value.map((prime) => {
    const here = rest
    rest /= prime
    return here
  })
})
const terms = computed(() => (props.work.kind === 'counters' ? props.work.terms : []))
const counters = computed(() => {
  const plus = terms.value.filter((t) => t > 0).reduce((a, b) => a + b, 0)
  const minus = -terms.value.filter((t) => t < 0).reduce((a, b) => a + b, 0)
  const pairs = Math.min(plus, minus)
  return { plus, minus, pairs }
})
</script>

<template>
  <svg
    v-if="work.kind === 'factor-tree'"
    class="tree"
    :viewBox="`0 0 ${60 + primes.length * 34} ${30 + primes.length * 34}`"
    aria-hidden="true"
  >
    <g v-for="(value, k) in trunk" :key="k">
      <text :x="30 + k * 34" :y="20 + k * 34">{{ k < primes.length - 1 ? value : '' }}</text>
      <template v-if="k < primes.length - 1">
        <path
          :d="`M${30 + k * 34} ${25 + k * 34} ${14 + k * 34} ${42 + k * 34} M${30 + k * 34} ${25 + k * 34} ${58 + k * 34} ${42 + k * 34}`"
        />
        <text :x="12 + k * 34" :y="56 + k * 34" class="prime">{{ primes[k] }}</text>
      </template>
      <text v-else :x="30 + k * 34" :y="20 + k * 34" class="prime">{{ primes[k] }}</text>
    </g>
  </svg>

  <div v-else-if="work.kind === 'balance'" class="balances">
    <div v-for="fair in [true, false]" :key="String(fair)" class="balance" :class="{ tipped: !fair }">
      <div class="beam">
        <span class="pan"
          ><PlainMath :text="work.left" /><b><PlainMath :text="work.move" /></b
        ></span>
        <span class="pan"
          ><PlainMath :text="work.right" /><b v-if="fair"><PlainMath :text="work.move" /></b
        ></span>
      </div>
      <div class="foot" />
      <p class="muted">{{ fair ? 'on both sides: level' : 'on one side only: it tips' }}</p>
    </div>
  </div>

  <div v-else class="counters" role="img" :aria-label="`${terms.join(' and ')} make ${work.total}`">
    <span v-for="k in counters.plus" :key="`p${k}`" class="counter plus" :class="{ gone: k <= counters.pairs }">+</span>
    <span v-for="k in counters.minus" :key="`m${k}`" class="counter minus" :class="{ gone: k <= counters.pairs }"
      >−</span
    >
    <p>
      {{ terms.join(' and ') }} make <b>{{ work.total }}</b>
    </p>
  </div>
</template>

<style scoped>
.tree {
  height: 130px;
}
.tree text {
  text-anchor: middle;
  fill: currentcolor;
  font-size: 14px;
}
.tree .prime {
  fill: var(--holds);
  font-weight: 700;
}
.tree path {
  fill: none;
  stroke: var(--muted);
  stroke-width: 1.4;
}
.balances {
  display: flex;
  gap: 22px;
  flex-wrap: wrap;
}
.balance {
  text-align: center;
  font-size: 0.92em;
}
.beam {
  display: flex;
  gap: 26px;
  border-bottom: 3px solid var(--muted);
  padding: 0 6px 3px;
  transition: transform 300ms;
}
.tipped .beam {
  transform: rotate(-5deg);
  border-color: var(--breaks);
}
.pan {
  display: flex;
  gap: 6px;
}
.pan b {
  color: var(--holds);
}
.tipped .pan b {
  color: var(--breaks);
}
.foot {
  width: 0;
  margin: 0 auto 4px;
  border: 9px solid transparent;
  border-top: 0;
  border-bottom: 14px solid var(--muted);
}
.counter {
  display: inline-grid;
  place-items: center;
  width: 20px;
  height: 20px;
  margin: 2px;
  border-radius: 50%;
  border: 1.5px solid var(--holds);
  color: var(--holds);
  line-height: 1;
}
.counter.minus {
  border-color: var(--breaks);
  color: var(--breaks);
  border-radius: 5px;
}
.gone {
  opacity: 0.32;
  text-decoration: line-through;
}
</style>
