<script setup lang="ts">
import { computed, nextTick, onMounted, ref } from 'vue'
import { useRouter } from 'vue-router'
import PageHeader from '@/features/session/PageHeader.vue'
import RunProgress from '@/components/RunProgress.vue'
import TroubleNote from '@/components/TroubleNote.vue'
import ProofList from '@/features/proofs/ProofList.vue'
import { useProofs } from '@/features/proofs/store'

/** Proof-reading: a whole key on the left as it was pasted, what does not hold on the right. */
const store = useProofs()
const router = useRouter()
const paper = ref<HTMLTextAreaElement | null>(null)
const title = ref('')
const count = computed(() => store.proofs?.problems.length ?? 0)
const sum = computed(() => {
  if (!store.proofs) return ''
  const { faulty } = store.proofs
  const problems = `${count.value} problem${count.value === 1 ? '' : 's'}`
  if (!faulty) return `${problems}: everything holds.`
  return `${problems}: ${count.value - faulty} hold, ${faulty} to look at.`
})
const EXAMPLE = `1) Solve 3x + 7 = 22
   3x = 15
   x = 5

2) Simplify √50 + √8
   5√2 + 2√2
   7√2`

onMounted(() => {
  store.recall()
  void store.resume()
  paper.value?.focus()
})

/** Selects a line of the text, and scrolls to it. */
async function show(line: number): Promise<void> {
  await nextTick()
  const area = paper.value
  if (!area) return
  const lines = store.text.split('\n')
  const start = lines.slice(0, line - 1).join('\n').length + (line > 1 ? 1 : 0)
  area.focus()
  area.setSelectionRange(start, start + (lines[line - 1] ?? '').length)
  const height = area.scrollHeight / Math.max(lines.length, 1)
  area.scrollTop = Math.max(0, (line - 4) * height)
}

function onKey(event: KeyboardEvent): void {
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) {
    event.preventDefault()
    void store.proofread()
  }
}

async function makeSheet(): Promise<void> {
  const made = await store.makeSheet(title.value)
  if (made !== null) await router.push(`/sheets/${made}`)
}
</script>

<template>
  <main class="page" @keydown="onKey">
    <PageHeader title="Proof-read a key" />
    <div class="halves">
      <section class="paste" aria-label="The key">
        <textarea
          ref="paper"
          :value="store.text"
          spellcheck="false"
          aria-label="The key, pasted or typed"
          :placeholder="EXAMPLE"
          @input="store.write(($event.target as HTMLTextAreaElement).value)"
        />
        <div class="actions">
          <el-button type="primary" :loading="store.busy" :disabled="!store.text.trim()" @click="store.proofread()"
            >Proof-read</el-button
          >
          <span class="muted">Ctrl+Enter</span>
        </div>
      </section>
      <section class="found" aria-live="polite" aria-label="Findings">
        <TroubleNote :request="store.request" />
        <div v-if="store.run && (!store.run.ended || store.run.trouble.length)" class="under-way">
          <RunProgress
            :run="store.run"
            what="problems read"
            :away="store.away"
            :quiet="store.quiet"
            @stop="store.stop()"
          />
          <p v-for="line in store.run.trouble" :key="line" class="trouble">{{ line }}</p>
        </div>
        <template v-if="store.proofs">
          <p class="sum" :class="{ stale: store.stale }">
            {{ sum }} <span v-if="store.stale" class="muted">The text was changed since.</span>
          </p>
          <ProofList :proofs="store.proofs" @show="show" />
          <details v-if="store.proofs.skipped.length" class="skipped">
            <summary>
              {{ store.proofs.skipped.length }} line{{ store.proofs.skipped.length === 1 ? '' : 's' }} passed over
            </summary>
            <p v-for="line in store.proofs.skipped" :key="line.line">
              <button class="plain-button place" @click="show(line.line)">line {{ line.line }}</button> {{ line.text }}
            </p>
          </details>
          <form v-if="count" class="make" @submit.prevent="makeSheet">
            <input v-model="title" aria-label="Title of the sheet" placeholder="Title of the sheet" maxlength="120" />
            <el-button native-type="submit" :disabled="!title.trim() || store.busy">Make a sheet of it</el-button>
          </form>
        </template>
        <div v-else-if="!store.trouble && !store.run" class="empty muted">
          <p>
            Paste a whole key: typed lines, LaTeX, or text copied from a document. Several problems at once, each with a
            number or after an empty line.
          </p>
          <p>
            “Solve”, “Simplify”, “Factor” before a problem, or above several, says what is asked. Every line and every
            check is verified; nothing is stored until you make a sheet of it.
          </p>
        </div>
      </section>
    </div>
  </main>
</template>

<style scoped>
.page {
  height: 100%;
  display: flex;
  flex-direction: column;
  padding: 22px 28px 24px;
}
.halves {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(320px, 5fr) 7fr;
  gap: 26px;
}
.paste {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
textarea {
  flex: 1;
  min-height: 220px;
  resize: none;
  padding: 16px 18px;
  border: 1px solid #cfc8b8;
  border-radius: 8px;
  background: var(--sheet);
  font: 15px/1.6 var(--mono);
}
textarea::placeholder {
  color: #8b90a6;
}
.actions {
  display: flex;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}
.found {
  overflow: auto;
  min-height: 0;
}
.under-way {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
  padding: 2px 10px 12px;
}
progress {
  flex: 1;
  max-width: 260px;
  height: 8px;
  accent-color: var(--holds);
}
.under-way .trouble {
  flex-basis: 100%;
  margin: 0;
  padding: 0;
}
.sum {
  font-size: 17px;
  padding: 0 10px 10px;
  border-bottom: 1px solid var(--hairline);
}
.stale {
  opacity: 0.75;
}
.skipped {
  padding: 14px 10px;
  color: var(--muted);
}
.place {
  font-size: 13px;
  color: var(--settles);
}
.make {
  display: flex;
  gap: 10px;
  padding: 14px 10px;
}
.make input {
  flex: 1;
  padding: 7px 10px;
  border: 1px solid #cfc8b8;
  border-radius: 6px;
  background: var(--sheet);
}
.trouble {
  color: var(--breaks);
  padding: 0 10px 10px;
}
.empty p + p {
  margin-top: 10px;
}
.empty {
  max-width: 54ch;
  padding: 14px 10px;
}
@media (max-width: 820px) {
  main {
    grid-template-columns: 1fr;
    overflow: auto;
  }
  .found {
    overflow: visible;
  }
}
</style>
