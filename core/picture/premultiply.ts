import type { FloatPicture } from './float-picture.ts'

/** The picture with colours multiplied by alpha. */
export function premultiply(picture: FloatPicture): FloatPicture {
  const data = picture.data.slice()
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!
    data[at] = data[at]! * alpha
    data[at + 1] = data[at + 1]! * alpha
    data[at + 2] = data[at + 2]! * alpha
  }
  return { ...picture, data }
}

/** The picture with colours divided by alpha; a clear pixel has no colour. */
export function unpremultiply(picture: FloatPicture): FloatPicture {
  const data = picture.data.slice()
  for (let at = 0; at < data.length; at += 4) {
    const alpha = data[at + 3]!
    for (let channel = 0; channel < 3; channel += 1) data[at + channel] = alpha === 0 ? 0 : data[at + channel]! / alpha
  }
  return { ...picture, data }
}

/** Does with the premultiplied form what must not mix colours of clear pixels in; straight alpha in and out. */
export function overPremultiplied(picture: FloatPicture, change: (premultiplied: FloatPicture) => FloatPicture): FloatPicture {
  return unpremultiply(change(premultiply(picture)))
}
