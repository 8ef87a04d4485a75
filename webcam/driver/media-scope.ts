/** What of a page's window the virtual devices become part of; a test gives its own. */
export type MediaScope = Pick<typeof globalThis, 'MediaDevices' | 'MediaStream' | 'MediaStreamTrack' | 'MediaDeviceInfo' | 'InputDeviceInfo'> & {
  readonly navigator: Navigator
  readonly Navigator?: typeof Navigator
  /** Not in every browser. */
  readonly ImageCapture?: { readonly prototype: object }
}
