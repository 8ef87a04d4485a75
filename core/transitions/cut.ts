import type { TransitionDefinition } from './definition.ts'

export const cut: TransitionDefinition<'cut'> = {
  kind: 'cut',
  put: ({ to }) => to.put(),
}
