// AssemblyScript: chroma of 4:2:0 rows, interpolated as core/picture/i420.ts says; shared by the kernels that read codes.

/** 3·near + side as 16-bit values of the columns from `first` to `end` and those beside them, the edge values repeated outside. */
export function packColumns(out: usize, near: usize, side: usize, first: i32, end: i32, chromaWidth: i32): void {
  const from = max(0, first - 1)
  const to = min(chromaWidth, end + 8)
  const three = i16x8.splat(3)
  for (let i = from; i < to; i += 8) {
    const sum = i16x8.add(
      i16x8.mul(i16x8.extend_low_i8x16_u(v128.load64_zero(near + i)), three),
      i16x8.extend_low_i8x16_u(v128.load64_zero(side + i)),
    )
    v128.store(out + (i << 1), sum)
  }
  store<u16>(out - 2, load<u16>(out))
  if (to >= chromaWidth) store<u16>(out + (chromaWidth << 1), load<u16>(out + ((chromaWidth - 1) << 1)))
}

/** Sixteen horizontally interpolated codes of eight columns, from what packColumns wrote. */
// @ts-ignore: decorator
@inline
export function chromaOf(at: usize, three: v128, eight: v128): v128 {
  const middle = i16x8.add(i16x8.mul(v128.load(at), three), eight)
  const even = i16x8.shr_u(i16x8.add(middle, v128.load(at - 2)), 4)
  const odd = i16x8.shr_u(i16x8.add(middle, v128.load(at + 2)), 4)
  return v128.or(even, i16x8.shl(odd, 8))
}
