/** Half the size, each pixel the mean of 2 × 2; premultiplied, or whatever else may be averaged. An odd last row or column is dropped. */
export const halveGlsl = `
void main() {
  ivec2 from = here * 2;
  result = (at(t0, from) + at(t0, from + ivec2(1, 0)) + at(t0, from + ivec2(0, 1)) + at(t0, from + ivec2(1))) / 4.0;
}`
