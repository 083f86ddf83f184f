import { beforeEach, describe, expect, it } from 'vitest'
import { ApiError } from '@/api/client'
import { useSheets } from '@/features/sheets/store'
import { forgetCopies, withCopy } from '@/lib/copies'
import { beginAnew, line, says, sheet } from '@/testing/server'

beforeEach(beginAnew)

describe('copies of what the server said', () => {
  const fails = (problem: Error) => () => Promise.reject(problem)
  it('stand in only where there is no connection', async () => {
    expect(await withCopy('a', () => Promise.resolve({ x: 1 }))).toEqual({ x: 1 })
    expect(await withCopy('a', fails(new TypeError('no connection')))).toEqual({ x: 1 })
    await expect(withCopy('a', fails(new ApiError(404, 'There is nothing here.')))).rejects.toThrow('nothing here')
    await expect(withCopy('b', fails(new TypeError('no connection')))).rejects.toThrow('no connection')
  })
  it('are forgotten by how their names begin', async () => {
    for (const key of ['sheet.1', 'sheet.2', 'session']) await withCopy(key, () => Promise.resolve(key))
    forgetCopies('sheet.')
    await expect(withCopy('sheet.1', fails(new TypeError('no')))).rejects.toThrow('no')
    expect(await withCopy('session', fails(new TypeError('no')))).toBe('session')
  })
  it('are of the open sheet alone', async () => {
    Object.assign(says, { 'GET /api/sheets/1': sheet(3), 'GET /api/sheets/2': { ...sheet(4), id: 2 } })
    const sheets = useSheets()
    await sheets.open(1)
    await sheets.open(2)
    line.down = true
    await expect(sheets.open(1)).rejects.toThrow('no connection')
    await sheets.open(2)
    expect(sheets.sheet?.id).toBe(2)
  })
})
