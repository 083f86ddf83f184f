<script setup lang="ts">
import { computed, ref } from 'vue'
import { useChain } from '@/features/chain/store'
import { useSession } from '@/features/session/store'
import { useSheets } from '@/features/sheets/store'
import { inForce } from '@/lib/conventions'
import type { Face, FaceName } from './faces'

/** The top of the desk: where one is, the faces of the problem, whether all is saved, what holds for the sheet. */
defineProps<{ place: number; faces: Face[]; face: string }>()
const emit = defineEmits<{ show: [face: FaceName]; conventions: []; taught: []; keys: [] }>()

const sheets = useSheets()
const chain = useChain()
const session = useSession()
const open = ref(false) // on a narrow screen the settings stand behind a button
const SAVE_WORDS = {
  saved: 'saved',
  saving: 'saving…',
  offline: 'No connection: kept in this browser, will be sent',
  conflict: 'Changed in another window',
  refused: 'Not saved',
} as const

const count = computed(() => sheets.sheet?.problems.length ?? 0)
const conventionWords = computed(() => {
  const set = inForce(sheets.sheet?.conventions ?? {}).length
  return set ? `${set} convention${set === 1 ? '' : 's'} set` : 'usual conventions'
})
const untaught = computed(() => sheets.sheet?.untaught.length ?? 0)
</script>

<template>
  <section class="bar" aria-label="Sheet and faces">
    <RouterLink to="/" class="home" title="All sheets">Uchuu</RouterLink>
    <h1 class="title" :aria-busy="!sheets.sheet">{{ sheets.sheet?.title ?? 'Opening …' }}</h1>
    <span v-if="faces.length" class="muted">problem {{ place }} of {{ count }}</span>
    <nav v-if="faces.length" class="faces" aria-label="Faces of this problem">
      <button
        v-for="each in faces"
        :key="each.name"
        class="plain-button face"
        :class="{ on: face === each.name }"
        :aria-current="face === each.name ? 'page' : undefined"
        :title="`${each.word} (Alt+${each.letter})`"
        @click="emit('show', each.name)"
      >
        {{ each.word }}
      </button>
    </nav>
    <span class="space" />
    <span class="save" :class="chain.state" role="status">{{ faces.length ? SAVE_WORDS[chain.state] : '' }}</span>
    <button class="plain-button more" :aria-expanded="open" aria-controls="desk-settings" @click="open = !open">
      More
    </button>
    <div id="desk-settings" class="settings" :class="{ open }">
      <button class="plain-button muted small" title="Conventions of this sheet (Alt+C)" @click="emit('conventions')">
        {{ chain.problem?.numbers ?? 'real' }} numbers · {{ conventionWords }}
      </button>
      <button class="plain-button muted small" title="What the class knows (Alt+K)" @click="emit('taught')">
        {{ untaught ? `${untaught} not taught yet` : 'all taught' }}
      </button>
      <button class="plain-button" title="Keys and notation (?)" @click="emit('keys')">Keys <kbd>?</kbd></button>
      <RouterLink v-if="count" class="muted small" :to="`/sheets/${sheets.sheet?.id}/print`">Print</RouterLink>
      <RouterLink to="/account" class="muted small">{{ session.teacher?.name }}</RouterLink>
    </div>
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 14px;
  padding: 0 18px;
  border-bottom: 1px solid var(--hairline);
  white-space: nowrap;
}
.home {
  font-weight: 700;
  color: inherit;
  text-decoration: none;
}
.title {
  font-size: inherit;
  font-weight: inherit;
  overflow: hidden;
  text-overflow: ellipsis;
}
.space {
  flex: 1;
}
.faces {
  display: flex;
  gap: 2px;
  margin-left: 10px;
}
.face {
  padding: 5px 11px;
}
.face.on {
  font-weight: 700;
  box-shadow: inset 0 -3px var(--settles);
  border-radius: 6px 6px 0 0;
}
.small {
  font-size: 13px;
}
.save {
  font-size: 13px;
  color: var(--muted);
}
.save.offline,
.save.conflict,
.save.refused {
  color: var(--breaks);
}
.settings {
  display: flex;
  align-items: center;
  gap: 14px;
}
.more {
  display: none;
}
@media (max-width: 1180px) {
  .bar {
    flex-wrap: wrap;
    gap: 2px 12px;
    padding: 6px 14px 0;
  }
  .title {
    flex: 1;
    min-width: 6ch;
  }
  .space {
    display: none;
  }
  .more {
    display: block;
  }
  .faces {
    order: 1;
    flex-basis: 100%;
    margin: 0;
    overflow-x: auto;
  }
  .face {
    padding: 9px 11px;
  }
  .settings {
    display: none;
    order: 2;
    flex-basis: 100%;
    flex-wrap: wrap;
    gap: 4px 12px;
    padding-bottom: 6px;
  }
  .settings.open {
    display: flex;
  }
}
</style>
