import { onBeforeUnmount, onMounted } from 'vue'
import { actionOf, type Group } from '@/lib/shortcuts'

/**
 * Does what the keys of a group mean, wherever the focus is, while the component stands; what something else has taken
 * is left alone.
 */
export function useKeys<Action extends string>(group: Group<Action>, act: (action: Action) => void): void {
  const onKey = (event: KeyboardEvent): void => {
    const action = event.defaultPrevented ? null : actionOf(group, event)
    if (action === null) return
    event.preventDefault()
    act(action)
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
}
