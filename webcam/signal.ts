// What travels between a studio and a meeting page to bring them together. Pictures do not.
import { z } from 'zod'

/** A session's id as a meeting makes it; the server puts the meeting's number before it, so that none can speak for another. */
const meetingSession = z.string().max(60)
const session = z.string().max(80)

const description = z.object({ type: z.enum(['offer', 'answer']), sdp: z.string().max(100_000) })
const candidate = z.object({
  candidate: z.string().max(2000),
  sdpMid: z.string().max(40).nullish(),
  sdpMLineIndex: z.number().nullish(),
  usernameFragment: z.string().max(256).nullish(),
})

/** Size and rate of the show that is on air: what a meeting may ask of the camera. */
const format = z.object({ widthPx: z.int().min(1).max(16_384), heightPx: z.int().min(1).max(16_384), frameRate: z.number().min(1).max(240) })
export type FeedFormat = z.infer<typeof format>

/** From a meeting page. */
export const fromMeetingSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('want'), session: meetingSession }),
  z.object({ type: z.literal('description'), session: meetingSession, description }),
  z.object({ type: z.literal('candidate'), session: meetingSession, candidate }),
  z.object({ type: z.literal('bye'), session: meetingSession }),
])
export type FromMeeting = z.infer<typeof fromMeetingSchema>

/** To a meeting page. `studio` tells whether a studio is open and whether its feed runs; `isNew`: it does not know yet what the page holds. `format`: only to pages that may have the feed. */
export type ToMeeting =
  | { readonly type: 'studio'; readonly isOpen: boolean; readonly isFeedOn: boolean; readonly isNew?: boolean; readonly format?: FeedFormat }
  | Extract<FromMeeting, { type: 'description' | 'candidate' | 'bye' }>

/** From a studio: answers to one meeting, or what it is doing. */
export const fromStudioSchema = z.discriminatedUnion('type', [
  /** `isAgain`: the feed ran before this connection was made, so that it does not take the place of one that runs. */
  z.object({ type: z.literal('feed'), isOn: z.boolean(), isAgain: z.boolean(), format: format.optional() }),
  z.object({ type: z.literal('description'), session, description }),
  z.object({ type: z.literal('candidate'), session, candidate }),
  z.object({ type: z.literal('bye'), session }),
])
export type FromStudio = z.infer<typeof fromStudioSchema>

/** To a studio. */
export type ToStudio =
  /** A meeting's message, with the page's true origin as the transport saw it. */
  | { readonly type: 'meeting'; readonly origin: string; readonly message: FromMeeting }
  /** Another tab sends the feed; this one's has ended. */
  | { readonly type: 'feedTaken' }

/** From a page that an extension watches over: what a meeting says, and which devices of ours the page holds open. */
export const fromSiteSchema = z.discriminatedUnion('type', [
  ...fromMeetingSchema.options,
  z.object({ type: z.literal('open') }),
  z.object({ type: z.literal('close') }),
])
export type FromSite = z.infer<typeof fromSiteSchema>
