import { describe, expect, it } from 'vitest'
import type { FramePlan } from '../../core/plan/frame-plan.ts'
import { planOfLayers } from '../../tests/support/plans.ts'
import { AirJudge, HOLD_MS } from './air-judge.ts'

/** Sources beginning with "camera" are live. */
const isCamera = (sourceId: string) => sourceId.startsWith('camera')
const plan = (drawn: readonly string[], missing: readonly string[] = []): FramePlan => ({
  ...planOfLayers(drawn.map((sourceId) => ({ layerId: `of ${sourceId}`, sourceId }))),
  missing: missing.map((sourceId) => ({ layerId: `of ${sourceId}`, sourceId })),
})

function judging() {
  const judge = new AirJudge()
  return (nowMs: number, drawn: readonly string[], missing: readonly string[] = [], sceneId = 'scene') =>
    judge.judge(sceneId, plan(drawn, missing), isCamera, nowMs)
}

describe('AirJudge', () => {
  it('shows the card while the only camera of a scene has never had a picture', () => {
    const judge = judging()
    expect(judge(0, ['wall'], ['camera'])).toBe('card')
    expect(judge(100, ['wall', 'camera'])).toBe('show')
    expect(judging()(0, [])).toBe('card')
  })

  it('leaves out what is added on air until it has a picture: a photo, a second camera, the first camera of a still scene', () => {
    for (const added of ['photo', 'camera two']) {
      const judge = judging()
      expect(judge(0, ['wall', 'camera'])).toBe('show')
      for (const nowMs of [33, 1200, 60_000]) expect(judge(nowMs, ['wall', 'camera'], [added])).toBe('show')
    }
    const judge = judging()
    judge(0, ['wall', 'title'])
    expect(judge(33, ['wall', 'title'], ['camera'])).toBe('show')
  })

  it('leaves a picture that cannot be read out for good, in a scene that comes on air with it, too', () => {
    expect(judging()(0, ['wall', 'camera'], ['photo'])).toBe('show')
    expect(judging()(0, ['title'], ['photo'])).toBe('show')
  })

  it('holds the last picture for a moment when a layer loses its own, then goes on without it', () => {
    const judge = judging()
    judge(0, ['camera', 'camera two', 'photo'])
    expect(judge(100, ['camera'], ['camera two'])).toBe('hold')
    expect(judge(100 + HOLD_MS - 1, ['camera'], ['camera two'])).toBe('hold')
    expect(judge(100 + HOLD_MS, ['camera'], ['camera two'])).toBe('show')
    expect(judge(5000, ['camera', 'camera two'])).toBe('show')
    expect(judge(6000, ['camera'], ['camera two'])).toBe('hold')
  })

  it('shows the card when the last live picture is lost, and the scene when it is back', () => {
    const judge = judging()
    judge(0, ['wall', 'camera'])
    expect(judge(100, ['wall'], ['camera'])).toBe('hold')
    expect(judge(100 + HOLD_MS, ['wall'], ['camera'])).toBe('card')
    expect(judge(9000, ['wall'], ['camera'])).toBe('card')
    expect(judge(9100, ['wall', 'camera'])).toBe('show')
  })

  it('does not hold one scene’s picture when another is taken', () => {
    const judge = judging()
    judge(0, ['camera'])
    expect(judge(50, [], ['camera'])).toBe('hold')
    expect(judge(60, ['title'], [], 'other')).toBe('show')
    expect(judge(70, ['wall'], ['camera'], 'third')).toBe('card')
  })

  it('keeps the picture of before while a scene’s layers are about to come, and shows them when the first does', () => {
    const judge = new AirJudge()
    judge.judge('before', plan(['camera']), isCamera, 0)
    const coming = { ...plan([]), validUntilMs: 500 }
    expect(judge.judge('next', coming, isCamera, 33)).toBe('hold')
    expect(judge.judge('next', { ...plan(['camera']), validUntilMs: 500 }, isCamera, 500)).toBe('show')
    // One whose camera is missing besides is no such scene.
    expect(new AirJudge().judge('next', { ...plan([], ['camera']), validUntilMs: 500 }, isCamera, 33)).toBe('card')
  })
})
