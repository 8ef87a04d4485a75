import { beforeEach, describe, expect, it } from 'vitest'
import { storedPin, storePin } from './use-executor.ts'

beforeEach(() => storePin('auto'))

describe('the kept choice of who makes the pictures', () => {
  it('is automatic until something else was chosen', () => {
    expect(storedPin()).toBe('auto')
    storePin('gl')
    expect(storedPin()).toBe('gl')
  })

  it('is automatic again for words that mean nothing', () => {
    storePin('something' as 'cpu')
    expect(storedPin()).toBe('auto')
  })
})
