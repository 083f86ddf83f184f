import { flushPromises, mount } from '@vue/test-utils'
import { describe, expect, it, vi } from 'vitest'
import TroubleNote from './TroubleNote.vue'
import { useRequest } from '@/composables/useRequest'

describe('the note of what went wrong', () => {
  it('offers to try again only where that may help', async () => {
    const request = useRequest()
    const note = mount(TroubleNote, { props: { request } })
    expect(note.find('[role=alert]').exists()).toBe(false)
    await request.run(() => Promise.reject(new Error('Too long.')))
    await flushPromises()
    expect(note.find('[role=alert]').text()).toBe('Too long.')
    expect(note.find('button').exists()).toBe(false)
    const work = vi.fn().mockRejectedValueOnce(new TypeError()).mockResolvedValue(null)
    await request.run(work)
    await flushPromises()
    await note.find('button').trigger('click')
    await flushPromises()
    expect(work).toHaveBeenCalledTimes(2)
    expect(note.find('[role=alert]').exists()).toBe(false)
  })
})
