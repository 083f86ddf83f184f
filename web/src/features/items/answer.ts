import { computed, watch, type ComputedRef } from 'vue'
import type { Schema } from '@/api/client'

export type MyItem = Schema['MyItem']
export type Told = Schema['ToldLineOut']

/** What every form of item is given: the item, the lines that stand, and what is told of each. */
export interface AnswerProps {
  item: MyItem
  lines: string[]
  told: (k: number) => Told | null
  decimal: 'point' | 'comma'
  closed: boolean
  /** What was begun and not given, as lines. */
  draft?: string
  /** Whether the lines have not reached the server yet. */
  unsent?: boolean
}
/** What every form of item says: an answer that is given, and one that is begun (empty: nothing is). */
export interface AnswerEmits {
  (event: 'answer', lines: string[]): void
  (event: 'draft', text: string): void
}

/**
 * An answer that is given as lines, as it would be on paper. `read` puts lines into the fields of the form, whenever
 * another item or other lines stand there; `written` are the lines that the fields make.
 */
export function useAnswer(
  props: AnswerProps,
  emit: AnswerEmits,
  read: (lines: string[]) => void,
  written: () => string[],
): { isNew: ComputedRef<boolean>; give: () => void } {
  watch(
    () => [props.item.id, props.lines.join('\n')],
    () => read(props.draft ? props.draft.split('\n') : props.lines), // what was begun and not given stands again
    { immediate: true },
  )
  const answer = computed(written)
  const isNew = computed(() => answer.value.length > 0 && answer.value.join('\n') !== props.lines.join('\n'))
  watch([answer, isNew], () => emit('draft', isNew.value ? answer.value.join('\n') : ''))
  return { isNew, give: () => isNew.value && emit('answer', answer.value) }
}
