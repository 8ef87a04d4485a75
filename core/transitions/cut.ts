import type { TransitionBase, TransitionDefinition } from './definition.ts'

export interface Cut extends TransitionBase {
  readonly kind: 'cut'
}

export const cut: TransitionDefinition<Cut> = {
  kind: 'cut',
  usual: {},
  stored: {},
  put: ({ to }) => to.put(),
}
