// What the page of this document may use, asked in the extension's own world, where the page's scripts reach nothing.
import type { DeviceKind } from '../webcam/driver/device-door.ts'

const KINDS: readonly DeviceKind[] = ['camera', 'microphone']

export class DocumentRights {
  readonly #permissions = new Map<DeviceKind, PermissionStatus>()
  readonly #onDenied: (kind: DeviceKind) => void
  #learned: Promise<void> | null = null

  /** `onDenied` hears when the person takes a permission away. */
  constructor(onDenied: (kind: DeviceKind) => void) {
    this.#onDenied = onDenied
  }

  /** Reads the browser's permissions. Until then nothing may be used. */
  learn(): Promise<void> {
    return (this.#learned ??= this.#read())
  }

  /** Whether the document may use such a device: its origin has a name, its permissions policy allows it, and the person has not blocked it. */
  mayUse(kind: DeviceKind): boolean {
    const permission = this.#permissions.get(kind)
    return self.origin !== 'null' && permission !== undefined && permission.state !== 'denied' && isInPolicy(kind)
  }

  /** Whether the person has allowed it in the browser. */
  isGranted(kind: DeviceKind): boolean {
    return this.mayUse(kind) && this.#permissions.get(kind)?.state === 'granted'
  }

  async #read(): Promise<void> {
    for (const kind of KINDS) {
      const permission = await navigator.permissions.query({ name: kind as PermissionName })
      permission.onchange = () => {
        if (permission.state === 'denied') this.#onDenied(kind)
      }
      this.#permissions.set(kind, permission)
    }
  }
}

function isInPolicy(kind: DeviceKind): boolean {
  const { featurePolicy } = document as Document & { featurePolicy?: { allowsFeature(name: string): boolean } }
  return featurePolicy?.allowsFeature(kind) ?? true
}
