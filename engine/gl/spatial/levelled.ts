/** core/matte/levels.ts as GLSL. */
export const LEVELLED = `
float levelled(float alpha, float black, float white) {
  return white <= black ? (alpha > black ? 1.0 : 0.0) : clip((alpha - black) / (white - black));
}`
