// What the parts of the extension say to each other, and to the studio's page.
import type { FromSite, ToMeeting } from '../webcam/signal.ts'

/** To the worker, from a page's bridge. Who it is the browser says, never the message. `mark`: a number that lies with the site's own data. */
export type FromBridge = { readonly to: 'ids'; readonly mark: string } | { readonly to: 'studio'; readonly message: FromSite }

/** To a page's bridge. */
export interface ToBridge {
  readonly from: 'studio'
  readonly message: ToMeeting
}

/** To the worker, from the studio's page by way of its relay. `here`: this page is the studio; the newest that sends a feed is asked first. */
export type FromStudioPage =
  | { readonly to: 'worker'; readonly type: 'here'; readonly isFeedOn: boolean }
  | { readonly to: 'site'; readonly documentId: string; readonly message: ToMeeting }

/** To the studio's page. `gone`: a page that can no longer be reached. `there`: the extension is; `isNew`: it has not heard of this studio yet. */
export type ToStudioPage =
  | { readonly from: 'site'; readonly documentId: string; readonly origin: string; readonly message: FromSite }
  | { readonly from: 'worker'; readonly type: 'gone'; readonly documentId: string }
  | { readonly from: 'worker'; readonly type: 'there'; readonly version: string; readonly isNew: boolean }

/** Messages in the studio's window carry one of these names, so that the two ends never hear themselves. */
export const TO_EXTENSION = 'green-room:to-extension'
export const FROM_EXTENSION = 'green-room:from-extension'
