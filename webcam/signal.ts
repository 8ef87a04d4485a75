// What travels between a studio and a meeting page to bring them together. Pictures do not.
import { z } from 'zod'

const description = z.object({ type: z.enum(['offer', 'answer']), sdp: z.string().max(100_000) })
const candidate = z.object({
  candidate: z.string().max(2000),
  sdpMid: z.string().max(40).nullish(),
  sdpMLineIndex: z.number().nullish(),
  usernameFragment: z.string().max(256).nullish(),
})

/** From a meeting page. */
export const fromMeetingSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('want'), session: z.string().max(60) }),
  z.object({ type: z.literal('description'), session: z.string().max(60), description }),
  z.object({ type: z.literal('candidate'), session: z.string().max(60), candidate }),
  z.object({ type: z.literal('bye'), session: z.string().max(60) }),
])
export type FromMeeting = z.infer<typeof fromMeetingSchema>

/** To a meeting page. `studio` tells whether a studio is open and whether its feed runs. */
export type ToMeeting =
  { readonly type: 'studio'; readonly isOpen: boolean; readonly isFeedOn: boolean } | Extract<FromMeeting, { type: 'description' | 'candidate' | 'bye' }>

/** From a studio: answers to one meeting, or what it is doing. */
export const fromStudioSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('feed'), isOn: z.boolean() }),
  z.object({ type: z.literal('description'), session: z.string().max(60), description }),
  z.object({ type: z.literal('candidate'), session: z.string().max(60), candidate }),
  z.object({ type: z.literal('bye'), session: z.string().max(60) }),
])
export type FromStudio = z.infer<typeof fromStudioSchema>

/** To a studio: a meeting's message, with the page's true origin as the transport saw it. */
export interface ToStudio {
  readonly type: 'meeting'
  readonly origin: string
  readonly message: FromMeeting
}
